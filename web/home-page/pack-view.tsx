import { useState } from 'react'
import type { HomePack } from '@awlbox/core/contracts/api/home'
import { useLink } from './link.ts'
import { FilmView } from './film-view.tsx'
import { box, summary } from './looks.ts'
import { ReplyForm } from './reply-form.tsx'
import { WhoseAnswers } from './whose-answers.tsx'
import { useWords, written } from './words.ts'

/** A lesson as a home sees it: its words first, the film when it is asked for, then the tasks. */
export function PackView({ pack, preview }: { pack: HomePack; preview: boolean }) {
  const { say, locale } = useWords()
  const [childId, setChildId] = useState(pack.children[0]?.id ?? '')
  const child = pack.children.find((c) => c.id === childId) ?? pack.children[0]
  const p = pack.pack
  const day = (text: string): string =>
    new Date(text).toLocaleDateString(locale, {
      weekday: 'long',
      day: 'numeric',
      month: 'long',
      timeZone: 'UTC',
    })
  return (
    <>
      <div>
        <h1 {...written} className="font-child font-bold text-[26px] leading-tight">
          {p.title}
        </h1>
        <p className="text-[17px] mt-1">{p.aim}</p>
        {pack.due && !pack.closed && (
          <p className="text-[17px] mt-1 font-semibold">{say('send.due', { day: day(pack.due) })}</p>
        )}
      </div>
      {p.needs.length > 0 && <Needs pack={pack} />}
      <AdultNotes pack={pack} />
      {pack.film && <FilmView pack={pack} />}
      <WhoseAnswers among={pack.children} chosen={child?.id} onChoose={setChildId} />
      {pack.closed && (
        <p className="rounded-lg bg-wash p-3">{say('send.closed', { day: pack.due ? day(pack.due) : '' })}</p>
      )}
      {child && <ReplyForm key={child.id} pack={pack} child={child} preview={preview} />}
      {p.answers.length > 0 && (
        <details className={box}>
          <summary className={summary}>{say('answers.title')}</summary>
          <Answers answers={p.answers} />
        </details>
      )}
    </>
  )
}

function Needs({ pack }: { pack: HomePack }) {
  const { say } = useWords()
  const token = useLink()
  const p = pack.pack
  return (
    <section aria-label={say('needs.title')} className="rounded-xl bg-wash p-4 grid gap-1.5">
      <h2 className="font-bold text-[17px]">{say('needs.title')}</h2>
      <ul className="text-[17px] grid gap-1">
        {p.needs.map((n) => (
          <li key={n.line}>
            <b>{n.line}</b>
            {n.swap && <span>, {say('needs.or', { thing: n.swap })}</span>}
          </li>
        ))}
      </ul>
      {pack.children.length > 1 && (
        <p className="text-steel">{say('needs.for', { children: pack.children.length })}</p>
      )}
      {p.ways.map((w) => (
        <p key={w}>{w}</p>
      ))}
      {p.sheets.length > 0 && (
        <p className="flex flex-wrap items-center gap-x-4">
          <span>{say('sheets.title')}:</span>
          {p.sheets.map((s) => (
            <a
              key={s.kind}
              href={`/api/home/${token}/packs/${pack.id}/print/${s.kind}`}
              target="_blank"
              rel="noreferrer"
              className="underline min-h-9 inline-flex items-center"
            >
              {s.name}
            </a>
          ))}
          <span className="text-steel">{say('sheets.size')}</span>
        </p>
      )}
      {p.cautions.map((c) => (
        <p key={c} className="text-brick">
          {c}
        </p>
      ))}
    </section>
  )
}

/** Read by the grown-up first and alone: the child beside them is not told the answer. */
function AdultNotes({ pack }: { pack: HomePack }) {
  const { say } = useWords()
  const { adult } = pack.pack
  if (!adult.why && !adult.note.length && !adult.answers.length) return null
  return (
    <details className={box}>
      <summary className={summary}>{say('adult.title')}</summary>
      <div className="pb-3 grid gap-3">
        {adult.note.length > 0 && (
          <div {...written} className="grid gap-2">
            {adult.note.map((t) => (
              <p key={t}>{t}</p>
            ))}
          </div>
        )}
        {adult.why && (
          <div>
            <h2 className="font-semibold">{say('adult.why')}</h2>
            <p>{adult.why}</p>
          </div>
        )}
        {adult.see.length > 0 && (
          <div>
            <h2 className="font-semibold">{say('adult.see')}</h2>
            <ul className="grid gap-1.5">
              {adult.see.map((x) => (
                <li key={x.see}>
                  {x.see} <span className="block ps-4">{x.say}</span>
                </li>
              ))}
            </ul>
          </div>
        )}
        {adult.ways.length > 0 && (
          <div>
            <h2 className="font-semibold">{say('adult.ways')}</h2>
            <ul className="list-disc ps-5">
              {adult.ways.map((w) => (
                <li key={w}>{w}</li>
              ))}
            </ul>
          </div>
        )}
        {adult.not && <p className="font-semibold">{say('adult.not', { what: adult.not })}</p>}
        {adult.answers.length > 0 && (
          <div>
            <h2 className="font-semibold">{say('adult.answers')}</h2>
            <Answers answers={adult.answers} />
          </div>
        )}
      </div>
    </details>
  )
}
function Answers({ answers }: { answers: HomePack['pack']['answers'] }) {
  return (
    <ol {...written} className="list-decimal ps-6 pb-3 grid gap-1">
      {answers.map((a) => (
        <li key={a.prompt}>
          {a.prompt} <b className="font-child">{a.answer}</b>
        </li>
      ))}
    </ol>
  )
}
