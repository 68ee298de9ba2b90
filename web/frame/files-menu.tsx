import { DropdownMenu } from 'radix-ui'
import { useLesson } from './lesson-context.ts'

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
  return (
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
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  )
}
