import { DropdownMenu } from 'radix-ui'
import { useState } from 'react'
import { useNavigate } from 'react-router'
import * as classesApi from '@awlbox/core/contracts/api/classes'
import * as shelfApi from '@awlbox/core/contracts/api/shelf'
import { ask, wordsOf } from '../api.ts'
import { Button } from '../kit/button.tsx'
import { DateField } from '../kit/date-field.tsx'
import { Dialog } from '../kit/dialog.tsx'
import { Notice } from '../kit/notice.tsx'
import { Select } from '../kit/select.tsx'
import { useLesson } from './lesson-context.ts'
import { useAsked } from './use-asked.ts'

const files: readonly (readonly [string, string])[] = [
  ['cue-cards.pdf', 'Cue cards (PDF)'],
  ['plan.pdf', 'Plan on one page (PDF)'],
  ['md', 'Markdown'],
  ['fountain', 'Screenplay (Fountain)'],
  ['lesson.json', 'Lesson file (JSON)'],
]

/** The lesson as files: to print, to keep, to give to another program. */
export function FilesMenu() {
  const { record } = useLesson()
  const [carrying, setCarrying] = useState(false)
  return (
    <>
      <DropdownMenu.Root>
        <DropdownMenu.Trigger className="max-md:hidden inline-flex min-h-10 items-center rounded-lg border border-hair bg-card px-3.5 font-semibold whitespace-nowrap hover:bg-wash cursor-pointer">
          Files
        </DropdownMenu.Trigger>
        <DropdownMenu.Portal>
          <DropdownMenu.Content
            align="end"
            className="z-50 min-w-52 rounded-lg border border-hair bg-card p-1 shadow-lg"
          >
            {files.map(([kind, words]) => (
              <DropdownMenu.Item key={kind} asChild>
                <a
                  href={`/api/lessons/${record.id}/export/${kind}`}
                  download
                  className="rounded-md px-3 min-h-9 grid items-center outline-none data-[highlighted]:bg-wash"
                >
                  {words}
                </a>
              </DropdownMenu.Item>
            ))}
            <DropdownMenu.Separator className="my-1 border-t border-hair" />
            <DropdownMenu.Item
              onSelect={() => setCarrying(true)}
              className="rounded-md px-3 min-h-9 grid items-center outline-none cursor-pointer data-[highlighted]:bg-wash"
            >
              Copy for a class…
            </DropdownMenu.Item>
          </DropdownMenu.Content>
        </DropdownMenu.Portal>
      </DropdownMenu.Root>
      {carrying && <Carry lessonId={record.id} onClose={() => setCarrying(false)} />}
    </>
  )
}

/** The script of a lesson for another class, or for the same one again, on a day. */
function Carry({ lessonId, onClose }: { lessonId: string; onClose: () => void }) {
  const { data: shelf } = useAsked(shelfApi.shelf, {})
  const [classId, setClassId] = useState('')
  const [day, setDay] = useState(new Date().toLocaleDateString('sv'))
  const [problem, setProblem] = useState<string | null>(null)
  const navigate = useNavigate()
  const carry = () =>
    ask(classesApi.carryLesson, { lessonId }, { classId, day }).then(
      ({ id }) => {
        onClose()
        void navigate(`/lessons/${id}/plan`)
      },
      (e: unknown) => setProblem(wordsOf(e)),
    )
  return (
    <Dialog open onClose={onClose} title="Copy for a class">
      <div className="grid gap-3">
        <p className="text-steel">
          The script goes along, with its tasks. Takes, cut and replies stay with this one; the new one is
          filmed or changed by itself.
        </p>
        <div className="flex flex-wrap gap-2">
          <Select
            label="For which class"
            value={classId}
            hint="Which class"
            choices={(shelf?.classes ?? []).map((c) => ({ value: c.id, words: c.name }))}
            onChange={setClassId}
          />
          <DateField label="Goes out on" value={day} required onChange={setDay} className="w-44" />
        </div>
        {problem && <Notice kind="wrong">{problem}</Notice>}
        <div>
          <Button look="main" disabled={!classId || !day} onClick={() => void carry()}>
            Copy it
          </Button>
        </div>
      </div>
    </Dialog>
  )
}
