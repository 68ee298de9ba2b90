// @vitest-environment jsdom
import { act, cleanup, renderHook } from '@testing-library/react'
import { afterEach, beforeEach, describe, expect, test, vi } from 'vitest'
import type { Lesson } from '@awlbox/core/contracts/lesson'
import { lessonOf } from '@awlbox/core/cut/test-words'
import { type Answer, answering, type Asked, pass } from '../testing/hooks.ts'
import { useLessonDocument } from './document.ts'
import type { LessonRecord } from '@awlbox/core/contracts/api/lessons'

const start = lessonOf('# Parcels\n\n## One {show}\nSay: First.\n## Two {together}\nSay: Second.')
const titled =
  (title: string) =>
  (d: Lesson): Lesson => ({ ...d, title })
const said =
  (segment: number, text: string) =>
  (d: Lesson): Lesson => ({
    ...d,
    segments: d.segments.map((s, i) =>
      i === segment ? { ...s, steps: s.steps.map((x, k) => (k === 0 ? { ...x, text } : x)) } : s,
    ),
  })
const text = (d: Lesson, segment: number): string => d.segments[segment]!.steps[0]!.text

/** Keeps a lesson as the server does, every revision of it. */
class Lessons {
  revisions: Lesson[] = [start]
  lost = 0
  refuse: { status: number; detail: string } | null = null
  get revision(): number {
    return this.revisions.length
  }
  get doc(): Lesson {
    return this.revisions.at(-1)!
  }
  readonly answer = ({ method, path, body }: Asked): Answer => {
    if (this.lost > 0) {
      this.lost--
      return 'away'
    }
    if (method === 'GET') return { body: { doc: this.revisions[Number(path.split('/').at(-1)) - 1] } }
    if (this.refuse) return { status: this.refuse.status, body: { title: 'No', detail: this.refuse.detail } }
    const sent = body as { revision: number; doc: Lesson }
    if (sent.revision !== this.revision)
      return {
        status: 409,
        body: {
          title: 'Changed',
          detail: 'Changed elsewhere.',
          doc: this.doc,
          base: this.revisions[sent.revision - 1] ?? null,
          revision: this.revision,
        },
      }
    this.revisions.push(sent.doc)
    return { body: { revision: this.revision } }
  }
  record(): LessonRecord {
    return { id: 'l', revision: this.revision, doc: this.doc } as LessonRecord
  }
}
let server: Lessons
let asked: Asked[]
function open(record = server.record()) {
  const hook = renderHook((r: LessonRecord) => useLessonDocument(r), { initialProps: record })
  return {
    at: () => hook.result.current,
    edit: (change: (d: Lesson) => Lesson, typing?: string) =>
      act(() => hook.result.current.edit(change, typing)),
    told: (r: LessonRecord) => act(() => hook.rerender(r)),
    leave: hook.unmount,
  }
}
beforeEach(() => {
  vi.useFakeTimers()
  localStorage.clear()
  server = new Lessons()
  const mine = server
  const stand = answering((a) => mine.answer(a))
  asked = stand.asked
  vi.stubGlobal('fetch', stand.fetch)
})
afterEach(async () => {
  cleanup()
  // A page that is left still saves what it has.
  await vi.advanceTimersByTimeAsync(5000)
  vi.useRealTimers()
  vi.unstubAllGlobals()
})

describe('a lesson being written', () => {
  test('a change is seen at once, kept on this device, and saved soon after', async () => {
    const page = open()
    page.edit(titled('Other'))
    expect([page.at().doc.title, server.revision]).toEqual(['Other', 1])
    await pass(200)
    expect(JSON.parse(localStorage.getItem('awlbox-draft-l')!)).toMatchObject({
      revision: 1,
      doc: { title: 'Other' },
    })
    await pass(600)
    expect([server.doc.title, page.at().state, localStorage.getItem('awlbox-draft-l')]).toEqual([
      'Other',
      { kind: 'saved', revision: 2 },
      null,
    ])
  })
  test('letters typed close after each other are one step of undo; others are steps of their own', async () => {
    const page = open()
    for (const t of ['O', 'Ot', 'Oth']) page.edit(titled(t), 'title')
    await pass(5000)
    page.edit(titled('Later'), 'title')
    page.edit(titled('At once'))
    act(() => page.at().undo())
    expect(page.at().doc.title).toBe('Later')
    act(() => page.at().undo())
    expect(page.at().doc.title).toBe('Oth')
    act(() => page.at().undo())
    expect(page.at().doc.title).toBe('Parcels')
    act(() => page.at().redo())
    expect(page.at().doc.title).toBe('Oth')
  })
  test('what changes nothing is no step', () => {
    const page = open()
    page.edit((d) => d)
    expect(page.at().canUndo).toBe(false)
  })
  test('undo reaches across a page that was closed', async () => {
    const page = open()
    page.edit(titled('Other'))
    await pass(800)
    page.leave()
    const again = open()
    expect([again.at().doc.title, again.at().canUndo]).toEqual(['Other', true])
    act(() => again.at().undo())
    expect(again.at().doc.title).toBe('Parcels')
    await pass(800)
    expect(server.doc.title).toBe('Parcels')
  })
  test('where this browser knows nothing of what was before, the server’s revisions are gone back through', async () => {
    server.revisions.push(titled('Other')(start))
    const page = open()
    act(() => page.at().undo())
    await pass(10)
    expect(page.at().doc.title).toBe('Parcels')
    act(() => page.at().redo())
    expect(page.at().doc.title).toBe('Other')
  })
})

describe('when the server does not answer', () => {
  test('the page says that it is kept, and saves when it is back', async () => {
    const page = open()
    server.lost = 2
    page.edit(titled('Kept'))
    await pass(600)
    expect(page.at().state.kind).toBe('kept')
    await pass(5000)
    expect([server.doc.title, page.at().state.kind]).toEqual(['Kept', 'saved'])
  })
  test('a device with no room for it says so, and saves it when the server is back', async () => {
    const page = open()
    server.lost = 2
    const full = vi.spyOn(Storage.prototype, 'setItem').mockImplementation(() => {
      throw new DOMException('full', 'QuotaExceededError')
    })
    page.edit(titled('Only here'))
    await pass(600)
    full.mockRestore()
    expect(page.at().state).toMatchObject({
      kind: 'refused',
      why: expect.stringMatching(/no room.*Leave this page open/) as string,
    })
    await pass(5000)
    expect([server.doc.title, page.at().state.kind]).toEqual(['Only here', 'saved'])
  })
  test('what is not saved yet comes before the steps of undo where there is no room for both', async () => {
    const page = open()
    server.lost = 1
    page.edit(titled('First'))
    await pass(600)
    await pass(5000)
    server.lost = 100
    const write = Object.getOwnPropertyDescriptor(Storage.prototype, 'setItem')?.value as unknown as (
      key: string,
      value: string,
    ) => void
    const set = (key: string, value: string) => write.call(localStorage, key, value)
    const full = vi.spyOn(Storage.prototype, 'setItem').mockImplementation(function (
      this: Storage,
      key,
      value,
    ) {
      if (this.getItem('awlbox-undo-l') !== null) throw new DOMException('full', 'QuotaExceededError')
      set(key, value)
    })
    page.edit(titled('Second'))
    await pass(600)
    full.mockRestore()
    expect(page.at().state.kind).toBe('kept')
    expect(localStorage.getItem('awlbox-draft-l')).toContain('Second')
  })
  test('a page closed meanwhile opens with what was written, and saves it', async () => {
    server.lost = 100
    const page = open()
    page.edit(titled('Kept'))
    await pass(600)
    page.leave()
    server.lost = 0
    const again = open()
    expect(again.at().doc.title).toBe('Kept')
    await pass(100)
    expect(server.doc.title).toBe('Kept')
  })
  test('a draft that is no lesson is left alone', () => {
    localStorage.setItem('awlbox-draft-l', JSON.stringify({ revision: 1, base: start, doc: { title: 3 } }))
    expect(open().at().doc.title).toBe('Parcels')
  })
  test('what is refused stays on screen with the server’s words', async () => {
    server.refuse = { status: 422, detail: 'A title is needed.' }
    const page = open()
    page.edit(titled('Bad'))
    await pass(600)
    expect([page.at().state, page.at().doc.title]).toEqual([
      { kind: 'refused', why: 'A title is needed.' },
      'Bad',
    ])
  })
  test.each([
    ['away', 'kept'],
    ['refusing', 'refused'],
  ])('what is undone while the server is %s is no longer %s', async (how, kind) => {
    const page = open()
    if (how === 'away') server.lost = 1
    else server.refuse = { status: 422, detail: 'A title is needed.' }
    page.edit(titled('Bad'))
    await pass(600)
    expect(page.at().state.kind).toBe(kind)
    act(() => page.at().undo())
    await pass(600)
    expect(page.at().state).toEqual({ kind: 'saved', revision: 1 })
    page.leave()
    expect([server.revisions.length, localStorage.getItem('awlbox-draft-l')]).toEqual([1, null])
  })
  test('a page that is left sends what it has on its way', async () => {
    const page = open()
    page.edit(titled('Leaving'))
    window.dispatchEvent(new Event('pagehide'))
    await pass(0)
    expect(asked.map((a) => a.method)).toEqual(['PUT'])
    expect(server.doc.title).toBe('Leaving')
  })
})

describe('two windows on one lesson', () => {
  test('changes of different segments are both kept', async () => {
    const page = open()
    server.revisions.push(said(1, 'Theirs.')(start))
    page.edit(said(0, 'Mine.'))
    await pass(1200)
    expect([text(server.doc, 0), text(server.doc, 1), page.at().state]).toEqual([
      'Mine.',
      'Theirs.',
      { kind: 'saved', revision: 3 },
    ])
    expect(text(page.at().doc, 1)).toBe('Theirs.')
  })
  test('the same segment is asked about, with both versions; what is chosen is saved', async () => {
    const page = open()
    server.revisions.push(said(0, 'Theirs.')(start))
    page.edit(said(0, 'Mine.'))
    await pass(600)
    const { state } = page.at()
    if (state.kind !== 'conflict') throw new Error(state.kind)
    expect([state.conflicts.map((s) => s.title), text(state.mine, 0), text(state.theirs, 0)]).toEqual([
      ['One'],
      'Mine.',
      'Theirs.',
    ])
    act(() => page.at().resolve({ ...state.mine, segments: state.theirs.segments }))
    await pass(600)
    expect([text(page.at().doc, 0), page.at().state.kind]).toEqual(['Theirs.', 'saved'])
    act(() => page.at().undo())
    expect(text(page.at().doc, 0)).toBe('Mine.')
  })
  test('theirs, chosen as it is, is saved already', async () => {
    const page = open()
    server.revisions.push(said(0, 'Theirs.')(start))
    page.edit(said(0, 'Mine.'))
    await pass(600)
    const { state } = page.at()
    if (state.kind !== 'conflict') throw new Error(state.kind)
    act(() => page.at().resolve(state.theirs))
    await pass(600)
    expect([server.revisions.length, page.at().state]).toEqual([2, { kind: 'saved', revision: 2 }])
  })
  test('a change from elsewhere is taken over while nothing here is unsaved', async () => {
    const page = open()
    server.revisions.push(titled('Elsewhere')(start))
    page.told(server.record())
    expect([page.at().doc.title, page.at().state]).toEqual(['Elsewhere', { kind: 'saved', revision: 2 }])
  })
  test('it never takes the place of what is being written, and an older one of nothing', async () => {
    const page = open()
    page.edit(titled('Mine'))
    server.revisions.push(said(0, 'Theirs.')(start))
    page.told(server.record())
    expect(page.at().doc.title).toBe('Mine')
    await pass(1200)
    expect([server.doc.title, text(server.doc, 0)]).toEqual(['Mine', 'Theirs.'])
    page.told({ ...server.record(), revision: 1, doc: start })
    expect(page.at().doc.title).toBe('Mine')
  })
})
