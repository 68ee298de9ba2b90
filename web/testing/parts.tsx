import { render } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { type ReactNode, useMemo, useState } from 'react'
import { MemoryRouter } from 'react-router'
import { SWRConfig } from 'swr'
import { vi } from 'vitest'
import { defaultHouseStyle, type HouseStyle } from '@awlbox/core/contracts/house-style'
import type { LessonRecord } from '@awlbox/core/contracts/api/lessons'
import type { Lesson } from '@awlbox/core/contracts/lesson'
import { ladder } from '@awlbox/core/plan/ladder/ladder'
import { answersFollow } from '@awlbox/core/script/worked-out'
import { proofread } from '@awlbox/core/script/proof/proof'
import { type LessonContext, LessonProvider } from '../frame/lesson-context.ts'
import { asABrowser } from './browser.ts'
import { type Answer, answering, type Asked } from './hooks.ts'

const me = (style: HouseStyle) => ({
  name: 'Marnie Lund',
  role: 'teacher' as const,
  setting: 'Cobblegate Early Years',
  houseStyle: style,
  camera: true,
  pace: null,
})
interface Around {
  /** Answers what is asked; what it does not know gets an empty list. */
  answer?: (asked: Asked) => Answer | undefined
  style?: HouseStyle
}
/** What the server would answer to what every page asks. */
function serving({ answer, style = defaultHouseStyle }: Around) {
  const stand = answering((a) => {
    const own = answer?.(a)
    if (own) return own
    if (a.path === '/api/me') return { body: me(style) }
    if (a.path.startsWith('/api/ladder')) return { body: { ideas: ladder, edited: [] } }
    return { body: { items: [], classes: [], lessons: [] } }
  })
  vi.stubGlobal('fetch', stand.fetch)
  return stand.asked
}
const Page = ({ children }: { children: ReactNode }) => (
  <SWRConfig value={{ provider: () => new Map(), dedupingInterval: 0, shouldRetryOnError: false }}>
    <MemoryRouter>{children}</MemoryRouter>
  </SWRConfig>
)
/** A part of a page as a person has it before them. */
export function showing(part: ReactNode, around: Around = {}) {
  asABrowser()
  const asked = serving(around)
  return { ...render(<Page>{part}</Page>), user: userEvent.setup(), asked }
}

/** A part of a page within a lesson that can be written in; `doc` gives the lesson as it is now. */
export function showingIn(
  start: Lesson,
  part: ReactNode,
  around: Around & { record?: Partial<LessonRecord>; at?: string } = {},
) {
  const style = around.style ?? defaultHouseStyle
  let now = start
  function InLesson() {
    const [doc, setDoc] = useState(start)
    const [at, goTo] = useState<string | null>(around.at ?? start.segments[0]?.id ?? null)
    const [edit] = useState(() => (change: (doc: Lesson) => Lesson) => {
      setDoc((d) => {
        now = answersFollow(d, change(d))
        return now
      })
    })
    const proofed = useMemo(() => proofread(doc, style), [doc])
    const value: LessonContext = {
      doc,
      state: { kind: 'saved', revision: 1 },
      edit,
      undo: () => undefined,
      redo: () => undefined,
      canUndo: false,
      canRedo: false,
      resolve: () => undefined,
      me: me(style),
      record: {
        id: 'lesson',
        revision: 1,
        mayChange: true,
        facts: { sent: false },
        ...around.record,
      } as LessonRecord,
      proofed,
      at,
      goTo,
    }
    return <LessonProvider value={value}>{part}</LessonProvider>
  }
  return { ...showing(<InLesson />, around), doc: () => now }
}
