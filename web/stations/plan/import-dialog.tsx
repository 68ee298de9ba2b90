import { issueInWords } from '@awlbox/core/contracts/issue-words'
import { Select } from '../../kit/select.tsx'
import { defaultHouseStyle } from '@awlbox/core/contracts/house-style'
import * as lessonsApi from '@awlbox/core/contracts/api/lessons'
import { useMemo, useState } from 'react'
import { useNavigate } from 'react-router'
import { Lesson } from '@awlbox/core/contracts/lesson'
import { fromMarkdown } from '@awlbox/core/script/formats/markdown'
import { fromPlainText, looksLikeMarkdown } from '@awlbox/core/script/formats/plain-text'
import { proofread } from '@awlbox/core/script/proof/proof'
import { clockTime } from '@awlbox/core/words'
import { ask, wordsOf } from '../../api.ts'
import { useMe } from '../../frame/me.ts'
import { newId } from '../../frame/new-id.ts'
import { Button } from '../../kit/button.tsx'
import { Dialog } from '../../kit/dialog.tsx'
import { Notice } from '../../kit/notice.tsx'

interface Read {
  lesson: Lesson
  unplaced: { line: number; text: string; why: string }[]
}
const largest = 400_000

function read(text: string, wait: number): Read | { problem: string } {
  if (text.trimStart().startsWith('{')) {
    try {
      const parsed = Lesson.safeParse(JSON.parse(text))
      return parsed.success
        ? { lesson: parsed.data, unplaced: [] }
        : {
            problem: `This is no lesson file: ${issueInWords(parsed.error.issues[0])}`,
          }
    } catch {
      return { problem: 'This looks like a lesson file, but it is not whole.' }
    }
  }
  return looksLikeMarkdown(text) ? fromMarkdown(text, newId) : fromPlainText(text, newId, wait)
}

/** A lesson from notes a teacher has already: pasted or from a file, read at once, with what could not be placed. */
export function ImportDialog({
  classId,
  classes,
  day,
  onClose,
}: {
  classId: string
  classes: readonly { id: string; name: string }[]
  day: string
  onClose: () => void
}) {
  const me = useMe()
  const navigate = useNavigate()
  const [text, setText] = useState('')
  // The classes may come after the dialog was opened: until one is chosen it is the first.
  const [chosen, setChosen] = useState<string | null>(null)
  const cls = chosen ?? classId
  const [problem, setProblem] = useState<string | null>(null)
  const [busy, setBusy] = useState(false)
  const result = useMemo(() => (text.trim() ? read(text, me?.houseStyle.defaultWait ?? 5) : null), [text, me])
  const good = result && !('problem' in result) && result.lesson.segments.length > 0 ? result : null
  const proof = useMemo(() => good && proofread(good.lesson, me?.houseStyle ?? defaultHouseStyle), [good, me])
  const open = async (file: File | undefined) => {
    if (!file) return
    if (file.size > largest)
      return setProblem('This file is too large for notes of one lesson. Nothing was taken over.')
    const bytes = new Uint8Array(await file.arrayBuffer())
    if (bytes.includes(0))
      return setProblem(`${file.name} is no text file. Save your notes as text, or paste them here.`)
    setProblem(null)
    setText(new TextDecoder().decode(bytes))
  }
  const make = async () => {
    if (!good) return
    setBusy(true)
    try {
      const { id } = await ask(
        lessonsApi.makeLesson,
        { classId: cls },
        {
          day,
          doc: good.lesson,
        },
      )
      void navigate(`/lessons/${id}/script`)
    } catch (error) {
      setProblem(wordsOf(error))
      setBusy(false)
    }
  }
  return (
    <Dialog open onClose={onClose} title="A lesson from your notes" wide>
      <div className="grid gap-3">
        <p className="text-steel">
          Headings become segments, lines become steps, questions get a wait. Text, Markdown or a lesson file.
        </p>
        <input
          type="file"
          accept=".txt,.md,.json,text/plain,text/markdown,application/json"
          aria-label="A file with notes"
          className="text-sm text-steel file:min-h-10 file:mr-3 file:rounded-lg file:border file:border-hair file:bg-card file:px-3.5 file:font-semibold file:text-ink file:cursor-pointer"
          onChange={(e) => void open(e.target.files?.[0])}
        />
        <textarea
          aria-label="Notes"
          value={text}
          onChange={(e) => setText(e.target.value.slice(0, largest))}
          rows={9}
          className="rounded-lg border border-hair bg-card p-2.5 font-sans"
          placeholder={
            'Parcels to seven\nYou need: 10 bottle tops, an egg box\n\nWatch me:\nPut 4 on the frame\nPut 3 blue on the frame\nHow many parcels altogether?\n4 + 3 = 7'
          }
        />
        {result && 'problem' in result && <Notice kind="wrong">{result.problem}</Notice>}
        {good && proof && (
          <div className="rounded-lg border border-hair p-3">
            <p>
              <b>{good.lesson.title}</b>{' '}
              <span className="text-steel figures">
                {good.lesson.segments.length} segments ·{' '}
                {good.lesson.segments.reduce((n, s) => n + s.steps.length, 0)} lines · film{' '}
                {clockTime(proof.time.film)} · {proof.findings.length} findings
              </span>
            </p>
            <ul className="text-sm text-steel max-h-28 overflow-auto">
              {good.lesson.segments.map((s) => (
                <li key={s.id}>
                  {s.title} ({s.kind}): {s.steps.map((x) => x.verb).join(', ')}
                </li>
              ))}
            </ul>
          </div>
        )}
        {result && !('problem' in result) && result.unplaced.length > 0 && (
          <div>
            <h3 className="font-semibold">Not placed ({result.unplaced.length})</h3>
            <ul className="text-sm max-h-32 overflow-auto">
              {result.unplaced.map((u, i) => (
                <li key={i}>
                  <span className="figures text-steel">line {u.line}:</span> {u.text.slice(0, 90)}{' '}
                  <span className="text-steel">({u.why})</span>
                </li>
              ))}
            </ul>
          </div>
        )}
        {problem && <Notice kind="wrong">{problem}</Notice>}
        <div className="flex gap-3 items-center flex-wrap">
          <Button look="main" disabled={!good || busy || !cls} onClick={() => void make()}>
            Make the lesson
          </Button>
          <label className="flex items-center gap-2">
            for{' '}
            <Select
              value={cls}
              choices={classes.map((c) => ({ value: c.id, words: c.name }))}
              onChange={setChosen}
            />
          </label>
        </div>
      </div>
    </Dialog>
  )
}
