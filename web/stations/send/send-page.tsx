import { Card } from '../../kit/card.tsx'
import * as lessonsApi from '@awlbox/core/contracts/api/lessons'
import type { Replacement, SentHome } from '@awlbox/core/contracts/api/send'
import * as sendApi from '@awlbox/core/contracts/api/send'
import { useAsked } from '../../frame/use-asked.ts'
import { useState } from 'react'
import type { Lesson } from '@awlbox/core/contracts/lesson'
import { type PrintableKind, printableKinds } from '@awlbox/core/contracts/printables'
import { sheetsFor } from '@awlbox/core/send/printables/of-lesson'
import { printableWords } from '@awlbox/core/send/printables/sheets'
import { answerTold } from '@awlbox/core/script/answers-told'
import { clockTime } from '@awlbox/core/words'
import { ask, fileAt, wordsOf } from '../../api.ts'
import { useLesson } from '../../frame/lesson-context.ts'
import { Ruler } from '../../frame/ruler.tsx'
import { BeforeItGoesOut } from '../../frame/before-it-goes-out.tsx'
import { Split } from '../../frame/split.tsx'
import { kindWords } from '../../frame/task-kinds.ts'
import { megabytes } from '../../frame/time.ts'
import { Button } from '../../kit/button.tsx'
import { Dialog } from '../../kit/dialog.tsx'
import { Empty, Notice } from '../../kit/notice.tsx'
import { Select } from '../../kit/select.tsx'

/** Sheets in true size, made from the lesson's own numbers: those it asks for, and the others there are. */
function Printables({ lesson, lessonId }: { lesson: Lesson; lessonId: string }) {
  const [paper, setPaper] = useState<'A4' | 'Letter'>('A4')
  const asked = sheetsFor(lesson)
  const sheet = (kind: PrintableKind) => (
    <li key={kind}>
      <a
        href={fileAt(lessonsApi.printSheet, { lessonId, kind, paper })}
        download
        className="inline-flex min-h-9 items-center rounded-lg border border-hair px-2.5 text-sm font-semibold hover:bg-wash"
      >
        {printableWords[kind]}
      </a>
    </li>
  )
  return (
    <Card as="section" aria-label="To print" className="p-3 grid gap-2">
      <div className="flex items-center gap-2">
        <h2 className="font-bold flex-1">To print</h2>
        <Select
          label="Paper"
          look="small"
          value={paper}
          choices={[
            { value: 'A4', words: 'A4' },
            { value: 'Letter', words: 'Letter' },
          ]}
          onChange={setPaper}
        />
      </div>
      {asked.length > 0 && <ul className="flex flex-wrap gap-1.5">{asked.map(sheet)}</ul>}
      <details>
        <summary className="text-sm text-steel cursor-pointer min-h-8 grid items-center">
          Other sheets
        </summary>
        <ul className="flex flex-wrap gap-1.5 pt-1">
          {printableKinds.filter((k) => !asked.includes(k)).map(sheet)}
        </ul>
      </details>
      <p className="text-sm text-steel">
        In true size: print at 100 %; each sheet has a ruler to check it by.
      </p>
    </Card>
  )
}

export default function SendPage() {
  const { record, doc, proofed, state, at } = useLesson()
  const { data, mutate } = useAsked(sendApi.readSend, { lessonId: record.id })
  const [problem, setProblem] = useState<string | null>(null)
  const [busy, setBusy] = useState(false)
  const [qr, setQr] = useState<SentHome | null>(null)
  const [preview, setPreview] = useState<string | null>(null)
  const [asking, setAsking] = useState(false)
  if (!data) return <p className="p-8 text-steel">Opening…</p>
  const latest = data.sent[0]
  const saved = state.kind === 'saved'
  const stale = latest && saved && latest.lessonRevision < state.revision
  const publish = async (withFilm: boolean, knowing: string[]) => {
    setAsking(false)
    setBusy(true)
    setProblem(null)
    try {
      await ask(sendApi.publish, { lessonId: record.id }, { withFilm, knowing })
      await mutate()
    } catch (error) {
      setProblem(wordsOf(error))
    } finally {
      setBusy(false)
    }
  }
  const act = async (work: () => Promise<unknown>) => {
    setProblem(null)
    await work().catch((e: unknown) => setProblem(wordsOf(e)))
    await mutate()
  }
  const shown = preview ?? data.homes.find((h) => h.link)?.link ?? null
  // A child with two homes stands there twice.
  const kids = new Set(data.homes.map((h) => h.childId)).size
  const replied = new Set(data.homes.filter((h) => h.replied).map((h) => h.childId)).size
  // Brothers and sisters share one.
  const homes = new Set(data.homes.map((h) => h.householdId)).size
  return (
    <Split
      left={
        <div className="flex flex-1 min-h-0">
          <Ruler time={proofed.time} at={at} />
          <div className="flex-1 min-w-0 overflow-auto py-3 pr-3 grid grid-cols-[minmax(0,1fr)] gap-2 content-start">
            <Card as="section" className="p-3 grid gap-2">
              <h2 className="font-bold">What they answer</h2>
              {data.pack.tasks.length === 0 && (
                <p className="text-steel">
                  No tasks yet: the home task segment has no question to answer. A film without evidence
                  teaches you nothing about them.
                </p>
              )}
              {data.pack.tasks.map((t, i) => {
                const segment = doc.segments.find((s) => s.steps.some((x) => x.id === t.id))
                return (
                  <div key={t.id} className="border-t border-hair pt-2 first-of-type:border-0">
                    <p className="flex gap-2">
                      <b className="figures">{i + 1}</b>
                      <span className="flex-1">{t.prompt}</span>
                    </p>
                    <p className="text-sm text-steel pl-5">
                      {segment?.title} · comes back as {kindWords[t.spec.kind]}
                      {t.spec.kind === 'photo'
                        ? ` of ${t.spec.things} things`
                        : answerTold(t.spec)
                          ? ` · ${answerTold(t.spec)} is right`
                          : ''}
                    </p>
                  </div>
                )
              })}
            </Card>
            <Card as="section" className="p-3 grid gap-1">
              <h2 className="font-bold">What they need</h2>
              {data.pack.needs.map((n) => (
                <p key={n.thing}>
                  <b className="figures">
                    {n.count} {n.thing}
                  </b>
                  {n.swap && <span className="text-steel">, or {n.swap}</span>}
                </p>
              ))}
              {data.pack.cautions.map((c) => (
                <p key={c} className="text-sm text-brick">
                  {c}
                </p>
              ))}
            </Card>
            <Printables lesson={doc} lessonId={record.id} />
            {data.sent.length > 0 && (
              <Card as="section" className="p-3 grid gap-1">
                <h2 className="font-bold">Sent</h2>
                {data.sent.map((s) => (
                  <p key={s.id} className="text-sm figures">
                    {new Date(s.sentAt).toLocaleString('en-GB', {
                      weekday: 'short',
                      day: 'numeric',
                      month: 'short',
                      hour: '2-digit',
                      minute: '2-digit',
                    })}{' '}
                    · revision {s.lessonRevision} ·{' '}
                    {s.seconds ? `film of ${clockTime(s.seconds)}` : 'tasks without a film'}
                    {s.knowingly.length > 0 && (
                      <span title={s.knowingly.join('\n')}>
                        {` · sent knowing ${s.knowingly.length} not in order`}
                      </span>
                    )}
                    {s.replacedAt &&
                      `, corrected ${new Date(s.replacedAt).toLocaleString('en-GB', { weekday: 'short', day: 'numeric', month: 'short', hour: '2-digit', minute: '2-digit' })}`}
                  </p>
                ))}
              </Card>
            )}
          </div>
        </div>
      }
      right={
        <div className="p-4 grid grid-cols-[minmax(0,1fr)] gap-3 content-start">
          {problem && <Notice kind="wrong">{problem}</Notice>}
          <div className="flex flex-wrap items-center gap-3">
            {record.mayChange && (
              <Button
                look="main"
                disabled={busy || !saved}
                onClick={() =>
                  data.concerns.length ? setAsking(true) : void publish(data.latestRender !== null, [])
                }
              >
                {latest ? 'Send it again' : `Send to ${homes} ${homes === 1 ? 'home' : 'homes'}`}
              </Button>
            )}
            <span className="text-steel">
              {data.latestRender
                ? `Film of ${clockTime(data.latestRender.seconds)}, ${megabytes(data.latestRender.bytes)}`
                : 'No film rendered yet: the tasks go without one.'}
            </span>
          </div>
          {data.replacement && record.mayChange && (
            <ReplaceFilm
              key={data.replacement.renderId}
              replacement={data.replacement}
              first={!latest?.renderId}
              onReplace={(changes) =>
                act(() =>
                  ask(
                    sendApi.replaceFilm,
                    { publicationId: data.replacement!.publicationId },
                    {
                      renderId: data.replacement!.renderId,
                      changes,
                    },
                  ),
                )
              }
            />
          )}
          {stale && (
            <Notice kind="info">The script changed since it was sent. Homes still see what was sent.</Notice>
          )}
          <Card as="section" aria-label="Homes" className="overflow-hidden">
            <h2 className="font-bold px-3 pt-2.5">
              Homes{' '}
              <span className="font-normal text-steel text-sm">
                {latest ? `${replied} of ${kids} replied` : 'not sent yet'}
              </span>
            </h2>
            <ul>
              {data.homes.map((h) => (
                <li
                  key={h.childId}
                  className="flex items-center gap-2 border-t border-hair px-3 min-h-11 flex-wrap"
                >
                  <b className="w-20 truncate">{h.child}</b>
                  <span className="text-sm text-steel w-32 truncate">{h.home}</span>
                  {h.youngerChild && (
                    <span
                      className="text-sm text-brick whitespace-nowrap"
                      title="A child under three lives here: the page says so beside small parts"
                    >
                      under three
                    </span>
                  )}
                  <span className={`text-sm flex-1 ${h.replied ? 'text-moss font-semibold' : 'text-steel'}`}>
                    {h.replied
                      ? `replied ${new Date(h.replied).toLocaleString('en-GB', { weekday: 'short', hour: '2-digit', minute: '2-digit' })}`
                      : !h.open
                        ? latest
                          ? 'link ended'
                          : ''
                        : latest
                          ? 'waiting'
                          : ''}
                  </span>
                  {h.link && (
                    <>
                      <Button small onClick={() => setPreview(h.link)}>
                        See
                      </Button>
                      <Button small onClick={() => setQr(h)}>
                        Link
                      </Button>
                    </>
                  )}
                  {!h.link && latest && record.mayChange && (
                    <Button
                      small
                      onClick={() => void act(() => ask(sendApi.renewLink, { householdId: h.householdId }))}
                    >
                      New link
                    </Button>
                  )}
                </li>
              ))}
            </ul>
          </Card>
          {shown && latest ? (
            <section aria-label="As the phone shows it" className="grid gap-1 justify-items-center">
              <p className="text-steel text-sm">As the phone shows it</p>
              <iframe
                key={shown}
                title="The home page"
                src={shown}
                className="w-[390px] max-w-full h-[620px] rounded-[22px] border-4 border-ink bg-ground"
              />
            </section>
          ) : (
            <Empty>
              The home page appears here once it is sent. Each home gets a private link of its own.
            </Empty>
          )}
          {asking && (
            <BeforeItGoesOut
              lessonId={record.id}
              concerns={data.concerns}
              doing="send"
              onClose={() => setAsking(false)}
              onGo={() =>
                void publish(
                  data.latestRender !== null,
                  data.concerns.map((c) => c.key),
                )
              }
            />
          )}
          {qr && (
            <LinkDialog
              home={qr}
              onClose={() => setQr(null)}
              onRenew={() =>
                void act(() => ask(sendApi.renewLink, { householdId: qr.householdId })).then(() =>
                  setQr(null),
                )
              }
              onEnd={() =>
                void act(() => ask(sendApi.endLink, { householdId: qr.householdId })).then(() => setQr(null))
              }
            />
          )}
        </div>
      }
    />
  )
}

/** Puts the newest film in the place of the one that was sent. Tasks and replies stay; families read what changed. */
function ReplaceFilm({
  replacement,
  first,
  onReplace,
}: {
  replacement: Replacement
  /** Homes have no film yet. */
  first: boolean
  onReplace: (changes: string[]) => Promise<void>
}) {
  const [words, setWords] = useState(replacement.changes.join('\n'))
  const [busy, setBusy] = useState(false)
  return (
    <section aria-label="A newer film" className="rounded-xl border border-blue bg-card p-3 grid gap-2">
      <p>
        <b>
          {first
            ? 'There is a film now: it was sent without.'
            : 'A newer film is there than the one homes see.'}
        </b>{' '}
        <span className="text-steel">
          {first
            ? 'It joins the same page; tasks and what was answered stay.'
            : 'It can take the old one’s place; tasks and what was answered stay.'}
        </span>
      </p>
      <label className="grid gap-1 text-sm text-steel">
        What families read about it
        <textarea
          rows={Math.min(6, Math.max(2, words.split('\n').length))}
          maxLength={1500}
          value={words}
          onChange={(e) => setWords(e.target.value)}
          className="rounded-lg border border-hair bg-card p-2 text-ink text-base"
        />
      </label>
      <div>
        <Button
          look="act"
          disabled={busy}
          onClick={() => {
            setBusy(true)
            void onReplace(
              words
                .split('\n')
                .map((l) => l.trim().slice(0, 200))
                .filter(Boolean)
                .slice(0, 20),
            ).finally(() => setBusy(false))
          }}
        >
          {first ? 'Add the film' : 'Replace the film'}
        </Button>
      </div>
    </section>
  )
}

function LinkDialog({
  home,
  onClose,
  onRenew,
  onEnd,
}: {
  home: SentHome
  onClose: () => void
  onRenew: () => void
  onEnd: () => void
}) {
  const [copied, setCopied] = useState(false)
  const link = window.location.origin + home.link!
  return (
    <Dialog open onClose={onClose} title={`The link for ${home.child}’s home`}>
      <p className="text-steel mb-3">
        Anyone with this link can open this home’s page and answer for them. Give it to this home only, in the
        way your setting allows.
      </p>
      <div className="flex gap-4 items-start max-sm:flex-col">
        <img
          src={`/api/qr?link=${encodeURIComponent(home.link!)}`}
          alt="QR code of the link"
          width="150"
          height="150"
          className="bg-white rounded-lg"
        />
        <div className="min-w-0 grid gap-2">
          <input
            readOnly
            aria-label="Link"
            value={link}
            onFocus={(e) => e.target.select()}
            className="w-full min-h-10 rounded-lg border border-hair bg-wash px-2"
          />
          <div className="flex flex-wrap gap-2">
            <Button onClick={() => void navigator.clipboard?.writeText(link).then(() => setCopied(true))}>
              {copied ? 'Copied' : 'Copy'}
            </Button>
            <Button onClick={onRenew}>Change the link</Button>
            <Button look="wrong" onClick={onEnd}>
              End the link
            </Button>
          </div>
          <p className="text-sm text-steel">Change: the old one stops opening anything. Replies stay.</p>
        </div>
      </div>
    </Dialog>
  )
}
