import * as lessonsApi from '@awlbox/core/contracts/api/lessons'
import { MoreHorizontal } from 'lucide-react'
import { DropdownMenu } from 'radix-ui'
import { useState } from 'react'
import type { Segment } from '@awlbox/core/contracts/lesson'
import { factOf } from '@awlbox/core/script/renumber'
import { ask, wordsOf } from '../../api.ts'
import { useLesson } from '../../frame/lesson-context.ts'
import { newId } from '../../frame/new-id.ts'
import { RenumberDialog } from './renumber-dialog.tsx'
import { TakeOutDialog } from './take-out-dialog.tsx'

/** What can be done with a whole segment. */
export function SegmentMenu({ segment, first, last }: { segment: Segment; first: boolean; last: boolean }) {
  const { edit, goTo, doc } = useLesson()
  const [again, setAgain] = useState(false)
  const [takingOut, setTakingOut] = useState(false)
  const [said, setSaid] = useState<string | null>(null)
  const fact = factOf(segment, doc.examples)
  const move = (by: number) =>
    edit((d) => {
      const i = d.segments.findIndex((s) => s.id === segment.id)
      const segments = d.segments.filter((s) => s.id !== segment.id)
      segments.splice(i + by, 0, d.segments[i]!)
      return { ...d, segments }
    })
  const copy = () => {
    const id = newId()
    edit((d) => {
      const i = d.segments.findIndex((s) => s.id === segment.id)
      const twin: Segment = {
        ...segment,
        id,
        title: `${segment.title} (copy)`.slice(0, 120),
        steps: segment.steps.map((s) => ({ ...s, id: newId() })),
      }
      return { ...d, segments: [...d.segments.slice(0, i + 1), twin, ...d.segments.slice(i + 1)] }
    })
    goTo(id)
  }
  const toggleFilm = () =>
    edit((d) => ({
      ...d,
      segments: d.segments.map((s) => {
        if (s.id !== segment.id) return s
        const { unfilmed, ...rest } = s
        return unfilmed ? rest : { ...rest, unfilmed: true as const }
      }),
    }))
  const keep = () =>
    ask(lessonsApi.addToLibrary, {}, { segment, age: doc.age }).then(
      () => setSaid('Kept for everybody here'),
      (e: unknown) => setSaid(wordsOf(e)),
    )
  const item =
    'rounded-md px-3 min-h-9 grid items-center outline-none data-[highlighted]:bg-wash data-[disabled]:opacity-40 cursor-pointer'
  return (
    <>
      {said && (
        <span role="status" className="text-sm text-steel whitespace-nowrap">
          {said}
        </span>
      )}
      <DropdownMenu.Root onOpenChange={(o) => o && setSaid(null)}>
        <DropdownMenu.Trigger
          aria-label={`More for ${segment.title}`}
          className="size-9 shrink-0 grid place-items-center rounded-lg text-steel hover:bg-wash cursor-pointer"
        >
          <MoreHorizontal size={18} />
        </DropdownMenu.Trigger>
        <DropdownMenu.Portal>
          <DropdownMenu.Content
            align="end"
            className="z-50 min-w-52 rounded-lg border border-hair bg-card p-1 shadow-lg"
          >
            <DropdownMenu.Item className={item} disabled={!fact} onSelect={() => setAgain(true)}>
              Again with new numbers…
            </DropdownMenu.Item>
            <DropdownMenu.Item className={item} onSelect={copy}>
              Make a copy
            </DropdownMenu.Item>
            <DropdownMenu.Item className={item} disabled={first} onSelect={() => move(-1)}>
              Move up
            </DropdownMenu.Item>
            <DropdownMenu.Item className={item} disabled={last} onSelect={() => move(1)}>
              Move down
            </DropdownMenu.Item>
            {segment.audience === 'children' && (
              <DropdownMenu.Item className={item} onSelect={toggleFilm}>
                {segment.unfilmed ? 'Film it after all' : 'Give it without a film'}
              </DropdownMenu.Item>
            )}
            <DropdownMenu.Item className={item} onSelect={() => void keep()}>
              Keep in the library
            </DropdownMenu.Item>
            <DropdownMenu.Item
              className={`${item} text-brick`}
              onSelect={() =>
                edit((d) => ({ ...d, segments: d.segments.filter((s) => s.id !== segment.id) }))
              }
            >
              Take out
            </DropdownMenu.Item>
            <DropdownMenu.Item className={`${item} text-brick`} onSelect={() => setTakingOut(true)}>
              Take out several…
            </DropdownMenu.Item>
          </DropdownMenu.Content>
        </DropdownMenu.Portal>
      </DropdownMenu.Root>
      {takingOut && <TakeOutDialog from={segment} onClose={() => setTakingOut(false)} />}
      {again && fact && <RenumberDialog segment={segment} fact={fact} onClose={() => setAgain(false)} />}
    </>
  )
}
