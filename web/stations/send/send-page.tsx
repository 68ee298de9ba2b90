import { useState } from 'react'
import type { SentHome } from '@awlbox/core/contracts/api/send'
import * as sendApi from '@awlbox/core/contracts/api/send'
import { clockTime } from '@awlbox/core/words'
import { ask, wordsOf } from '../../api.ts'
import { BeforeItGoesOut } from '../../frame/before-it-goes-out.tsx'
import { useLesson } from '../../frame/lesson-context.ts'
import { Ruler } from '../../frame/ruler.tsx'
import { Split } from '../../frame/split.tsx'
import { megabytes } from '../../frame/time.ts'
import { useAsked } from '../../frame/use-asked.ts'
import { Button } from '../../kit/button.tsx'
import { Card } from '../../kit/card.tsx'
import { Notice } from '../../kit/notice.tsx'
import { Tabs } from '../../kit/tabs.tsx'
import { HomesCard } from './homes-card.tsx'
import { LinkDialog } from './link-dialog.tsx'
import { OtherLanguages } from './other-languages.tsx'
import { Outbox } from './outbox.tsx'
import { Printables } from './printables-panel.tsx'
import { PagePreview } from './page-preview.tsx'
import { ReplaceFilm } from './replace-film.tsx'
import { SendingDialog, type When } from './sending-dialog.tsx'
import { TasksCard } from './tasks-card.tsx'

const dayWords = (day: string): string =>
  new Date(day).toLocaleDateString('en-GB', { day: 'numeric', month: 'short', timeZone: 'UTC' })

export default function SendPage() {
  const { record, doc, proofed, state, at } = useLesson()
  const { data, mutate } = useAsked(sendApi.readSend, { lessonId: record.id })
  const [problem, setProblem] = useState<string | null>(null)
  const [busy, setBusy] = useState(false)
  const [qr, setQr] = useState<SentHome | null>(null)
  const [preview, setPreview] = useState<string | null>(null)
  const [tab, setTab] = useState('homes')
  const [asking, setAsking] = useState(false)
  /** Asked before it goes: by when, and whether homes are written to. */
  const [when, setWhen] = useState<When | null>(null)
  if (!data) return <p className="p-8 text-steel">Opening…</p>
  const latest = data.sent[0]
  const saved = state.kind === 'saved'
  const stale = latest && saved && latest.lessonRevision < state.revision
  const publish = async (withFilm: boolean, knowing: string[], when: When) => {
    setAsking(false)
    setWhen(null)
    setBusy(true)
    setProblem(null)
    try {
      await ask(sendApi.publish, { lessonId: record.id }, { withFilm, knowing, ...when })
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
  const shown = record.mayChange ? (preview ?? data.homes[0]?.householdId ?? null) : null
  // Brothers and sisters share one.
  const homes = new Set(data.homes.map((h) => h.householdId)).size
  return (
    <Split
      left={
        <div className="flex flex-1 min-h-0">
          <Ruler time={proofed.time} at={at} />
          <div className="flex-1 min-w-0 overflow-auto py-3 pr-3 grid grid-cols-[minmax(0,1fr)] gap-2 content-start">
            <TasksCard tasks={data.pack.tasks} segments={doc.segments} />
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
                    · revision {s.lessonRevision} · {s.due ? `wanted by ${dayWords(s.due)} · ` : ''}
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
                onClick={() => setWhen({ due: null, closes: null, release: null, write: true })}
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
          <Tabs
            label="What of it"
            value={tab}
            onChange={setTab}
            tabs={[
              {
                value: 'homes',
                label: 'Homes',
                content: (
                  <HomesCard
                    lessonId={record.id}
                    homes={data.homes}
                    sent={latest !== undefined}
                    mayChange={record.mayChange}
                    hasSets={data.pack.tasks.some((t) => t.spec.sets)}
                    onSee={(h) => {
                      setPreview(h.householdId)
                      setTab('page')
                    }}
                    onLink={setQr}
                    onAct={act}
                  />
                ),
              },
              {
                value: 'page',
                label: 'The page',
                content: (
                  <PagePreview
                    lessonId={record.id}
                    homes={data.homes}
                    shown={shown}
                    now={`${state.kind === 'saved' ? state.revision : ''}`}
                    onShow={setPreview}
                  />
                ),
              },
              {
                value: 'letters',
                label: 'Letters',
                content: (
                  <Outbox lessonId={record.id} sent={latest !== undefined} mayChange={record.mayChange} />
                ),
              },
              {
                value: 'languages',
                label: 'Languages',
                content: <OtherLanguages lessonId={record.id} homes={data.homes} />,
              },
              {
                value: 'print',
                label: 'To print',
                content: <Printables lesson={doc} lessonId={record.id} />,
              },
            ]}
          />
          {when && !asking && (
            <SendingDialog
              when={when}
              tasks={data.pack.tasks}
              onChange={setWhen}
              onClose={() => setWhen(null)}
              onGo={() =>
                data.concerns.length ? setAsking(true) : void publish(data.latestRender !== null, [], when)
              }
            />
          )}
          {when && asking && (
            <BeforeItGoesOut
              lessonId={record.id}
              concerns={data.concerns}
              doing="send"
              onClose={() => {
                setAsking(false)
                setWhen(null)
              }}
              onGo={() =>
                void publish(
                  data.latestRender !== null,
                  data.concerns.map((c) => c.key),
                  when,
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
