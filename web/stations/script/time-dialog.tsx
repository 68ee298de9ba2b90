import { scaleLinear } from 'd3-scale'
import { limitsOf, savings, type Saving, whereTimeGoes } from '@awlbox/core/script/clock-advice'
import { changeStep, removeStep } from '@awlbox/core/script/edit'
import { clock } from '@awlbox/core/script/time'
import type { Lesson } from '@awlbox/core/contracts/lesson'
import { clockTime } from '@awlbox/core/words'
import { useLesson } from '../../frame/lesson-context.ts'
import { Button } from '../../kit/button.tsx'
import { Dialog } from '../../kit/dialog.tsx'

/** Where the film's minutes go, how they were worked out, and what would bring it under its limit. */
export function TimeDialog({ onClose }: { onClose: () => void }) {
  const { doc, proofed, me, edit, record, goTo } = useLesson()
  const { time, moments } = proofed
  const shares = whereTimeGoes(doc, time)
  const x = scaleLinear([0, Math.max(1, shares[0]?.seconds ?? 1)], [0, 100])
  const limits = limitsOf(doc.age)
  const save = savings(doc, time, moments, me.houseStyle)
  const apply = (s: Saving) =>
    edit((d: Lesson) => {
      switch (s.kind) {
        case 'shorter wait':
          return changeStep(d, s.stepId, { text: `${s.to} s` })
        case 'repetition':
          return { ...d, segments: d.segments.filter((k) => k.id !== s.segmentId) }
        case 'recount':
          return removeStep(d, s.stepId)
        case 'long talk':
          return d
      }
    })
  const look = (s: Saving) => {
    const segment =
      s.kind === 'repetition' ? s.segmentId : moments.find((m) => m.step.id === s.stepId)?.segment.id
    if (segment) goTo(segment)
    onClose()
  }
  const rate = me.pace ?? clock.wordsPerMinute[doc.age] ?? 135
  return (
    <Dialog open onClose={onClose} title="Where the time goes" wide>
      <p className="mb-3 figures">
        Film <b>{clockTime(time.film)}</b> of {clockTime(limits.film)} at age {doc.age} · home{' '}
        {clockTime(time.home)} · children doing {Math.round(time.doing * 100)} % of all ·{' '}
        {time.questionsPerMinute.toFixed(1)} questions a minute · longest talk{' '}
        <b className={time.longestTalk.seconds > limits.talk ? 'text-brick' : ''}>
          {Math.round(time.longestTalk.seconds)} s
        </b>{' '}
        of {limits.talk} s
      </p>
      <ul className="grid gap-1 mb-4">
        {shares.map((s) => (
          <li key={s.kind} className="grid grid-cols-[110px_1fr_120px] items-center gap-3">
            <span className="capitalize">{s.kind}</span>
            <span className="h-4 rounded bg-wash">
              <span className="block h-full rounded bg-ink" style={{ width: `${x(s.seconds)}%` }} />
            </span>
            <span className="figures text-steel text-sm">
              {clockTime(s.seconds)} · {Math.round(s.share * 100)} %
            </span>
          </li>
        ))}
      </ul>
      <h3 className="font-bold mb-1">Segments</h3>
      <ol className="mb-4 max-h-48 overflow-auto">
        {doc.segments.map((s, i) => (
          <li key={s.id} className="flex justify-between gap-3 border-b border-hair py-0.5">
            <button
              type="button"
              onClick={() => {
                goTo(s.id)
                onClose()
              }}
              className="truncate text-left hover:underline cursor-pointer min-h-8"
            >
              {s.title}
            </button>
            <span
              className={`figures whitespace-nowrap ${time.segments[i]!.film > limits.segment ? 'text-brick font-semibold' : 'text-steel'}`}
            >
              {clockTime(time.segments[i]!.film)}
              {time.segments[i]!.home > 0 ? ` + ${clockTime(time.segments[i]!.home)} home` : ''}
            </span>
          </li>
        ))}
      </ol>
      {save.over > 0 && (
        <section className="mb-4">
          <h3 className="font-bold mb-1">
            {clockTime(save.over)} too long.{' '}
            {save.enough ? 'This would bring it under:' : 'This would help, and is not enough alone:'}
          </h3>
          <ul>
            {save.list.map((s, i) => (
              <li key={i} className="flex items-center gap-3 border-b border-hair py-1.5">
                <span className="min-w-0 flex-1">{s.what}</span>
                <span className="figures text-steel whitespace-nowrap">−{clockTime(s.seconds)}</span>
                {s.kind === 'long talk' ? (
                  <Button small onClick={() => look(s)}>
                    Go there
                  </Button>
                ) : (
                  <Button small disabled={!record.mayChange} onClick={() => apply(s)}>
                    Do it
                  </Button>
                )}
              </li>
            ))}
          </ul>
        </section>
      )}
      <p className="text-sm text-steel">
        Words are counted at {rate} a minute
        {me.pace
          ? ', your own pace from takes heard here'
          : `, the usual unhurried pace at age ${doc.age}; after three takes of yours it is your own`}
        . A number counted takes {clock.countTo10} s, beyond ten {clock.countTo20} s and beyond twenty{' '}
        {clock.countBeyond} s; a thing moved {clock.move} s; a question with no wait gets{' '}
        {me.houseStyle.defaultWait} s.
      </p>
    </Dialog>
  )
}
