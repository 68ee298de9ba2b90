import { useState } from 'react'
import * as lessonsApi from '@awlbox/core/contracts/api/lessons'
import type { Lesson } from '@awlbox/core/contracts/lesson'
import { type PrintableKind, printableKinds } from '@awlbox/core/contracts/printables'
import { sheetsFor } from '@awlbox/core/send/printables/of-lesson'
import { printableWords } from '@awlbox/core/send/printables/sheets'
import { fileAt } from '../../api.ts'
import { Card } from '../../kit/card.tsx'
import { Select } from '../../kit/select.tsx'

/** Sheets in true size, made from the lesson's own numbers: those it asks for, and the others there are. */
export function Printables({ lesson, lessonId }: { lesson: Lesson; lessonId: string }) {
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
      <p>
        <a
          href={fileAt(lessonsApi.printSheet, { lessonId, kind: 'reply-sheet', paper, each: 'home' })}
          download
          className="inline-flex min-h-9 items-center rounded-lg border border-hair px-2.5 text-sm font-semibold hover:bg-wash"
        >
          A reply sheet for each home, with its code
        </a>
      </p>
      <p className="text-sm text-steel">
        In true size: print at 100 %; each sheet has a ruler to check it by.
      </p>
    </Card>
  )
}
