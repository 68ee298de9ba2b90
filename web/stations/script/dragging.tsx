import {
  closestCenter,
  type CollisionDetection,
  DndContext,
  type DragEndEvent,
  KeyboardSensor,
  PointerSensor,
  pointerWithin,
  useSensor,
  useSensors,
} from '@dnd-kit/core'
import { SortableContext, sortableKeyboardCoordinates, verticalListSortingStrategy } from '@dnd-kit/sortable'
import { useMemo, type ReactNode } from 'react'
import { placeStep } from '@awlbox/core/script/edit'
import { useLesson } from '../../frame/lesson-context.ts'

// The same objects each time: other ones would make every card anew at every key.
const pointer = { activationConstraint: { distance: 6 } }
const keys = { coordinateGetter: sortableKeyboardCoordinates }
export const segmentKey = (id: string): string => `segment:${id}`
const isSegment = (id: unknown): boolean => String(id).startsWith('segment:')
const segmentOf = (id: unknown): string => String(id).slice('segment:'.length)

/** Lines are dragged within their segment or on to another one, where they come last; segments among each other. */
export function ScriptDragging({ open, children }: { open: string | null; children: ReactNode }) {
  const { doc, edit } = useLesson()
  const ids = doc.segments.map((s) => s.id).join(' ')
  const items = useMemo(() => ids.split(' ').filter(Boolean).map(segmentKey), [ids])
  const sensors = useSensors(useSensor(PointerSensor, pointer), useSensor(KeyboardSensor, keys))
  const collision: CollisionDetection = (args) => {
    const [segments, lines] = [
      args.droppableContainers.filter((c) => isSegment(c.id)),
      args.droppableContainers.filter((c) => !isSegment(c.id)),
    ]
    if (isSegment(args.active.id)) return closestCenter({ ...args, droppableContainers: segments })
    const under = pointerWithin({ ...args, droppableContainers: segments }).filter(
      (c) => open === null || c.id !== segmentKey(open),
    )
    return under.length ? under : closestCenter({ ...args, droppableContainers: lines })
  }
  const onDragEnd = ({ active, over }: DragEndEvent) => {
    if (!over || active.id === over.id) return
    if (isSegment(active.id)) {
      edit((d) => {
        const [from, to] = [
          d.segments.findIndex((s) => s.id === segmentOf(active.id)),
          d.segments.findIndex((s) => s.id === segmentOf(over.id)),
        ]
        if (from < 0 || to < 0) return d
        const segments = d.segments.filter((_, i) => i !== from)
        segments.splice(to, 0, d.segments[from]!)
        return { ...d, segments }
      })
    } else if (isSegment(over.id)) edit((d) => placeStep(d, String(active.id), segmentOf(over.id), null))
    else {
      const segment = doc.segments.find((s) => s.steps.some((x) => x.id === over.id))
      if (!segment) return
      const ids = segment.steps.map((s) => s.id)
      const [from, to] = [ids.indexOf(String(active.id)), ids.indexOf(String(over.id))]
      edit((d) => placeStep(d, String(active.id), segment.id, ids[to + (from < to ? 1 : 0)] ?? null))
    }
  }
  return (
    <DndContext sensors={sensors} collisionDetection={collision} onDragEnd={onDragEnd}>
      <SortableContext items={items} strategy={verticalListSortingStrategy}>
        {children}
      </SortableContext>
    </DndContext>
  )
}
