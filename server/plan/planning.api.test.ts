import { describe, expect, test } from 'vitest'
import { ladder } from '@awlbox/core/plan/ladder/ladder'
import { Lesson } from '@awlbox/core/contracts/lesson'
import { sampleLesson, testWorld } from '../testing.ts'

const t = testWorld()

describe('the house style', () => {
  test('reaches everybody of the setting and nobody else', async () => {
    expect(
      (await t.world.owner.call('PUT', '/api/house-style', { add: 'plus', helper: 'your gran' })).status,
    ).toBe(200)
    expect((await t.world.teacher.call('GET', '/api/me')).body.houseStyle).toMatchObject({
      add: 'plus',
      helper: 'your gran',
      equals: 'equals',
    })
    expect((await t.world.stranger.call('GET', '/api/me')).body.houseStyle).toMatchObject({ add: 'add' })
  })
  test.each([[{ add: 'sum up' }], [{ defaultWait: 1 }], [{ helper: '' }], ['plus']])(
    '%j is refused and changes nothing',
    async (bad) => {
      expect((await t.world.owner.call('PUT', '/api/house-style', bad)).status).toBe(400)
      expect((await t.world.owner.call('GET', '/api/house-style')).body.style).toMatchObject({
        add: 'plus',
        helper: 'your gran',
      })
    },
  )
})

describe('the ladder', () => {
  test('goes out and comes in as a table', async () => {
    const { body } = await t.world.owner.call('GET', '/api/ladder')
    expect((body.ideas as unknown[]).length).toBe(ladder.length)
    const csv = await (
      await fetch(`${t.app.address}/api/ladder.csv`, { headers: { cookie: t.world.owner.cookie } })
    ).text()
    const changed = csv.replace('Parts of 7', 'Seven in parts')
    expect((await t.world.owner.call('POST', '/api/ladder/csv', { csv: changed })).status).toBe(200)
    expect(JSON.stringify((await t.world.teacher.call('GET', '/api/ladder')).body)).toContain(
      'Seven in parts',
    )
  })
  test('a faulty table names its rows and takes nothing over', async () => {
    const csv =
      'id,name,structure,least,up to,from age,to age,after,evidence,misconceptions\na,A,parts,0,7,four,6,,,\nb,B,,0,7,4,6,gone,,'
    const r = await t.world.owner.call('POST', '/api/ladder/csv', { csv })
    expect(r.status).toBe(400)
    expect((r.body.errors as { row: number }[]).map((e) => e.row)).toContain(2)
    expect(JSON.stringify((await t.world.teacher.call('GET', '/api/ladder')).body)).toContain(
      'Seven in parts',
    )
  })
  test('a circle is refused', async () => {
    const idea = (id: string, after: string) => ({
      id,
      name: id,
      structure: null,
      upTo: 5,
      ages: [3, 5],
      after: [after],
    })
    expect(
      (await t.world.owner.call('PUT', '/api/ladder', { ideas: [idea('a', 'b'), idea('b', 'a')] })).status,
    ).toBe(400)
  })
})

describe('history', () => {
  test('a revision gets a name, and another; the revision itself stays', async () => {
    for (const name of ['First draft', 'As filmed'])
      expect((await t.world.teacher.call('POST', `${t.lesson}/revisions/1/name`, { name })).status).toBe(200)
    const items = (await t.world.teacher.call('GET', `${t.lesson}/revisions`)).body.items as {
      revision: number
      name: string | null
    }[]
    expect(items.find((i) => i.revision === 1)!.name).toBe('As filmed')
    expect((await t.world.teacher.call('POST', `${t.lesson}/revisions/99/name`, { name: 'x' })).status).toBe(
      404,
    )
    expect((await t.world.teacher.call('POST', `${t.lesson}/revisions/1/name`, { name: ' ' })).status).toBe(
      400,
    )
  })
  test('older ones come page by page', async () => {
    const opened = (await t.world.teacher.call('GET', t.lesson)).body as { revision: number; doc: Lesson }
    const { doc } = opened
    let { revision } = opened
    for (let i = 0; i < 52; i++)
      revision = (
        await t.world.teacher.call('PUT', `${t.lesson}/doc`, {
          revision,
          doc: { ...doc, title: `Take ${i}` },
        })
      ).body.revision as number
    const first = (await t.world.teacher.call('GET', `${t.lesson}/revisions`)).body as {
      items: { revision: number }[]
      next: number
    }
    const second = (await t.world.teacher.call('GET', `${t.lesson}/revisions?before=${first.next}`)).body as {
      items: { revision: number }[]
      next: null
    }
    expect([...first.items, ...second.items].map((i) => i.revision)).toEqual(
      Array.from({ length: revision }, (_, i) => revision - i),
    )
    expect(second.next).toBeNull()
  })
})

describe('the week', () => {
  test('knows what is due, what it takes and what there is', async () => {
    expect(
      (await t.world.teacher.call('PUT', '/api/me/hours', { minutes: [10, 0, 0, 0, 0, 0, 0] })).status,
    ).toBe(200)
    expect(
      (
        await t.world.teacher.call('PUT', `${t.lesson}/dates`, {
          day: '2027-03-05',
          filmBy: '2027-03-02',
          sendBy: '2027-03-04',
        })
      ).status,
    ).toBe(200)
    const week = (await t.world.teacher.call('GET', '/api/week?from=2027-03-03')).body as {
      from: string
      lessons: { id: string }[]
      plan: {
        free: number
        needed: number
        late: unknown[]
        drop: unknown[]
        tasks: { what: string; by: string }[]
      }
    }
    expect([week.from, week.plan.free, week.lessons.map((l) => l.id)]).toEqual([
      '2027-03-01',
      10,
      [t.world.here.lessonId],
    ])
    expect(week.plan.tasks.find((t) => t.what === 'film')!.by).toBe('2027-03-02')
    expect(week.plan.late.length).toBeGreaterThan(0)
  })
  test('minutes come from this teacher’s own saved changes once there are three lessons of them', async () => {
    const rates = async () =>
      (
        (await t.world.teacher.call('GET', '/api/week?from=2027-03-03')).body as {
          rates: { writing: number; own: string[] }
        }
      ).rates
    expect((await rates()).own).toEqual([])
    const {
      rows: [me],
    } = await t.app.pool.query<{ id: string }>('select teacher_id id from classes where id = $1', [
      t.world.here.classId,
    ])
    for (const minutes of [2, 4, 1]) {
      const made = await t.world.teacher.call('POST', `/api/classes/${t.world.here.classId}/lessons`, {
        day: '2027-02-01',
        doc: sampleLesson(`Old ${minutes}`),
      })
      // Five changes a given number of minutes apart, and one after a night in which nobody worked.
      for (let i = 1; i <= 5; i++)
        await t.app.pool.query(
          'insert into lesson_revisions (lesson_id, revision, doc, by_id, at) select $1, $2, doc, $3, now() + make_interval(mins => $4) from lessons where id = $1',
          [made.body.id, i + 1, me!.id, i * minutes + (i === 5 ? 600 : 0)],
        )
    }
    const film = (await t.world.teacher.call('GET', `/api/lessons/${t.world.here.lessonId}`)).body.facts as {
      filmSeconds: number
    }
    const own = await rates()
    expect(own.own).toEqual(['writing'])
    // Four gaps of two minutes in the middle lesson, by the film's minutes.
    expect(own.writing * (film.filmSeconds / 60)).toBeCloseTo(8, 0)
  })
  test('filming after it goes out is refused', async () =>
    expect(
      (
        await t.world.teacher.call('PUT', `${t.lesson}/dates`, {
          day: '2027-03-05',
          filmBy: '2027-03-06',
          sendBy: null,
        })
      ).status,
    ).toBe(400))
  test('is a calendar file others can read', async () => {
    const r = await fetch(`${t.app.address}/api/week.ics?from=2027-03-03`, {
      headers: { cookie: t.world.teacher.cookie },
    })
    const text = await r.text()
    expect(r.headers.get('content-type')).toMatch('text/calendar')
    expect(text).toMatch(/^BEGIN:VCALENDAR[\s\S]*DTSTART;VALUE=DATE:20270302[\s\S]*END:VCALENDAR/)
    expect(text.match(/BEGIN:VEVENT/g)!.length).toBe(text.match(/END:VEVENT/g)!.length)
  })
  test('a colleague’s week has only their own classes', async () =>
    expect((await t.world.colleague.call('GET', '/api/week?from=2027-03-03')).body.lessons).toEqual([]))
})

describe('files', () => {
  test('a lesson goes out in every format, named after itself', async () => {
    for (const [kind, begins] of [
      ['lesson.json', '{'],
      ['md', '# '],
      ['fountain', 'Title: '],
      ['cue-cards.pdf', '%PDF-'],
      ['plan.pdf', '%PDF-'],
    ] as const) {
      const r = await fetch(`${t.app.address}${t.lesson}/export/${kind}`, {
        headers: { cookie: t.world.teacher.cookie },
      })
      const text = Buffer.from(await r.arrayBuffer()).toString('latin1')
      expect([kind, r.status, text.startsWith(begins)]).toEqual([kind, 200, true])
      expect(r.headers.get('content-disposition')).toMatch(
        new RegExp(`^attachment; filename="?[a-z0-9-]+\\.${kind.replace('.', '\\.')}"?$`),
      )
    }
    expect((await t.world.teacher.call('GET', `${t.lesson}/export/docx`)).status).toBe(404)
  })
})

describe('what homes have', () => {
  test('a home says what it has; the class is told how many can do a lesson', async () => {
    const H = `/api/home/${t.world.here.tokens[0]}/kit`
    expect((await t.world.nobody.call('GET', H)).body).toMatchObject({ kit: null })
    expect(
      (
        await t.world.nobody.call('PUT', H, {
          has: ['egg box', 'buttons', 'a thing nobody asked for'],
          countable: 10,
          canPrint: true,
        })
      ).status,
    ).toBe(200)
    expect((await t.world.nobody.call('GET', H)).body.kit).toMatchObject({
      has: ['egg box', 'buttons'],
      countable: 10,
      canPrint: true,
    })
    const sum = (
      await t.world.teacher.call('POST', `/api/classes/${t.world.here.classId}/kit`, {
        kit: [
          { thing: 'two-faced counters', count: 7 },
          { thing: 'ten frame', count: 1 },
        ],
      })
    ).body
    expect(sum).toMatchObject({ answered: 1, withSwap: 1, asWritten: 0 })
    expect(sum.sentence).toMatch(/^0 of 1 home can do this as written; 1 with a swap/)
  })
  test('numbers beyond sense are refused', async () =>
    expect(
      (
        await t.world.nobody.call('PUT', `/api/home/${t.world.here.tokens[0]}/kit`, {
          has: [],
          countable: 9999,
          canPrint: false,
        })
      ).status,
    ).toBe(400))
})

test('coverage counts a class’s other lessons of the kind, not the lesson itself', async () => {
  const today = new Date().toISOString().slice(0, 10)
  const made = await t.world.teacher.call('POST', `/api/classes/${t.world.here.classId}/lessons`, {
    day: today,
    doc: sampleLesson('Other'),
  })
  const with_ = (
    await t.world.teacher.call('GET', `/api/classes/${t.world.here.classId}/coverage?structure=parts`)
  ).body as { week: unknown[]; term: unknown[] }
  const without = (
    await t.world.teacher.call(
      'GET',
      `/api/classes/${t.world.here.classId}/coverage?structure=parts&except=${made.body.id as string}`,
    )
  ).body as { week: unknown[]; term: unknown[] }
  expect(with_.week.length + with_.term.length - without.week.length - without.term.length).toBe(
    sampleLesson().examples.length,
  )
  expect(
    (await t.world.teacher.call('GET', `/api/classes/${t.world.here.classId}/coverage?structure=order`)).body,
  ).toEqual({ week: [], term: [] })
})

test('a document of before a field came in is read with its usual value', async () => {
  const { doc } = (await t.world.teacher.call('GET', t.lesson)).body as { doc: Lesson }
  const { story: _s, words: _w, arc: _a, ...old } = doc
  await t.app.pool.query('update lessons set doc = $1 where id = $2', [
    JSON.stringify(old),
    t.world.here.lessonId,
  ])
  const read = (await t.world.teacher.call('GET', t.lesson)).body.doc
  expect(Lesson.parse(read)).toEqual(read)
  expect(read).toMatchObject({ arc: 'show-together-alone', words: [] })
})
