import { fieldLook } from '../../kit/field.ts'
import { X } from 'lucide-react'
import { useState } from 'react'
import { useLesson } from '../../frame/lesson-context.ts'
import { Button } from '../../kit/button.tsx'
import { Dialog } from '../../kit/dialog.tsx'

/** Words the lesson brings in, each with its gesture; where each is first used and brought in is checked by the proof-reader. */
export function WordsDialog({ onClose }: { onClose: () => void }) {
  const { doc, edit, record, proofed } = useLesson()
  const [word, setWord] = useState('')
  const [gesture, setGesture] = useState('')
  const usedAt = (w: string) =>
    proofed.moments.find(
      (m) =>
        m.segment.audience === 'children' &&
        new RegExp(`\\b${w.replace(/[^\p{L}\p{N} '-]/gu, '')}\\b`, 'i').test(m.step.text),
    )
  const add = () => {
    const w = word.trim().toLowerCase()
    if (!w || doc.words.some((x) => x.word.toLowerCase() === w)) return
    edit((d) => ({ ...d, words: [...d.words, { word: w, gesture: gesture.trim() }] }))
    setWord('')
    setGesture('')
  }
  return (
    <Dialog open onClose={onClose} title="New words and their gestures" wide>
      <p className="text-steel mb-3">A word is brought in once, with a gesture, before it is used.</p>
      <ul className="mb-4">
        {doc.words.length === 0 && <li className="text-steel">No new words in this lesson.</li>}
        {doc.words.map((w) => {
          const at = usedAt(w.word)
          return (
            <li key={w.word} className="flex items-center gap-3 border-b border-hair py-1.5">
              <b className="font-child text-lg w-32 truncate">{w.word}</b>
              <input
                aria-label={`Gesture for ${w.word}`}
                disabled={!record.mayChange}
                value={w.gesture}
                maxLength={160}
                onChange={(e) =>
                  edit((d) => ({
                    ...d,
                    words: d.words.map((x) => (x.word === w.word ? { ...x, gesture: e.target.value } : x)),
                  }))
                }
                className={`${fieldLook} flex-1 min-w-0`}
                placeholder="its gesture"
              />
              <span className="text-sm text-steel whitespace-nowrap max-w-44 truncate">
                {at ? `first in “${at.segment.title}”` : 'not used yet'}
              </span>
              {record.mayChange && (
                <button
                  type="button"
                  aria-label={`Take ${w.word} off`}
                  onClick={() => edit((d) => ({ ...d, words: d.words.filter((x) => x.word !== w.word) }))}
                  className="size-8 grid place-items-center text-steel hover:text-brick cursor-pointer"
                >
                  <X size={15} />
                </button>
              )}
            </li>
          )
        })}
      </ul>
      {record.mayChange && (
        <form
          className="flex gap-2 flex-wrap"
          onSubmit={(e) => {
            e.preventDefault()
            add()
          }}
        >
          <input
            aria-label="New word"
            value={word}
            maxLength={40}
            onChange={(e) => setWord(e.target.value)}
            placeholder="word"
            className={`${fieldLook} w-36`}
          />
          <input
            aria-label="Its gesture"
            value={gesture}
            maxLength={160}
            onChange={(e) => setGesture(e.target.value)}
            placeholder="its gesture: what the hands do"
            className={`${fieldLook} flex-1 min-w-40`}
          />
          <Button type="submit" disabled={!word.trim()}>
            Add the word
          </Button>
        </form>
      )}
    </Dialog>
  )
}
