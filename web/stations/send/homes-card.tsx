import { taskSets, type TaskSet } from '@awlbox/core/contracts/lesson'
import type { SentHome } from '@awlbox/core/contracts/api/send'
import * as sendApi from '@awlbox/core/contracts/api/send'
import { speech } from '@awlbox/core/send/words/words'
import { useState } from 'react'
import { ask } from '../../api.ts'
import { useMe } from '../../frame/me.ts'
import { Button } from '../../kit/button.tsx'
import { Card } from '../../kit/card.tsx'
import { Select } from '../../kit/select.tsx'

/** In the demo: made-up homes open their pages and reply, over the same doors as real ones. */
function Street({
  lessonId,
  onAct,
}: {
  lessonId: string
  onAct: (work: () => Promise<unknown>) => Promise<void>
}) {
  const [busy, setBusy] = useState(false)
  const [told, setTold] = useState('')
  const walk = async () => {
    setBusy(true)
    setTold('')
    await onAct(async () => {
      const seed = Math.floor(Date.now() / 1000) % 1_000_000
      const { by, failed } = await ask(sendApi.letStreetReply, { lessonId }, { seed })
      const did = Object.entries(by).filter(([, n]) => n > 0)
      setTold(
        `${did.map(([what, n]) => `${n} ${what}`).join(', ')}${failed ? ` · ${failed} failed` : ''} · seed ${seed}`,
      )
    })
    setBusy(false)
  }
  return (
    <div className="flex flex-wrap items-center gap-2 px-3 py-2">
      <Button small disabled={busy} onClick={() => void walk()}>
        {busy ? 'The street is at it…' : 'Let the street reply'}
      </Button>
      <span role="status" className="text-sm text-steel">
        {told || 'Made-up homes with hidden abilities, in this demo alone.'}
      </span>
    </div>
  )
}

const setChoices: { value: TaskSet | 'own'; words: string }[] = [
  { value: 'own', words: 'chooses' },
  ...taskSets.map((value) => ({ value, words: value })),
]
const when = (moment: string): string =>
  new Date(moment).toLocaleString('en-GB', { weekday: 'short', hour: '2-digit', minute: '2-digit' })

/** The children of the class with their homes: who replied, which set each is given, and the page as that home sees it. */
export function HomesCard({
  lessonId,
  homes,
  sent,
  mayChange,
  hasSets,
  onSee,
  onLink,
  onAct,
}: {
  lessonId: string
  homes: readonly SentHome[]
  sent: boolean
  mayChange: boolean
  /** Whether the lesson has tasks for one set and not for another. */
  hasSets: boolean
  onSee: (home: SentHome) => void
  onLink: (home: SentHome) => void
  onAct: (work: () => Promise<unknown>) => Promise<void>
}) {
  const me = useMe()
  // A child with two homes stands there twice.
  const kids = new Set(homes.map((h) => h.childId)).size
  const replied = new Set(homes.filter((h) => h.replied).map((h) => h.childId)).size
  const state = (h: SentHome): string =>
    h.replied ? `replied ${when(h.replied)}` : !sent ? '' : h.open ? 'waiting' : 'link ended'
  return (
    <Card as="section" aria-label="Homes" className="overflow-hidden">
      <h2 className="font-bold px-3 pt-2.5">
        Homes{' '}
        <span className="font-normal text-steel text-sm">
          {sent ? `${replied} of ${kids} replied` : 'not sent yet'}
        </span>
      </h2>
      {sent && mayChange && me?.camera && <Street lessonId={lessonId} onAct={onAct} />}
      <ul>
        {homes.map((h) => (
          <li
            key={`${h.childId} ${h.householdId}`}
            className="flex items-center gap-2 border-t border-hair px-3 min-h-11 flex-wrap"
          >
            <b className="w-20 truncate">{h.child}</b>
            <span className="text-sm text-steel w-32 truncate" title={h.home}>
              {h.home}
            </span>
            {h.language !== 'en' && (
              <span className="text-sm whitespace-nowrap" lang={h.language}>
                {speech[h.language].name}
              </span>
            )}
            {h.youngerChild && (
              <span
                className="text-sm text-brick whitespace-nowrap"
                title="A child under three lives here: the page says so beside small parts"
              >
                under three
              </span>
            )}
            <span className={`text-sm flex-1 ${h.replied ? 'text-moss font-semibold' : 'text-steel'}`}>
              {state(h)}
            </span>
            {hasSets && mayChange && (
              <Select
                label={`Set for ${h.child}`}
                look="small"
                value={h.level ?? 'own'}
                choices={setChoices}
                onChange={(level) =>
                  void onAct(() =>
                    ask(
                      sendApi.giveSet,
                      { lessonId, childId: h.childId },
                      { level: level === 'own' ? null : level },
                    ),
                  )
                }
              />
            )}
            {mayChange && (
              <Button small onClick={() => onSee(h)}>
                See
              </Button>
            )}
            {h.link && (
              <Button small onClick={() => onLink(h)}>
                Link
              </Button>
            )}
            {!h.link && sent && mayChange && (
              <Button
                small
                onClick={() => void onAct(() => ask(sendApi.renewLink, { householdId: h.householdId }))}
              >
                New link
              </Button>
            )}
          </li>
        ))}
      </ul>
    </Card>
  )
}
