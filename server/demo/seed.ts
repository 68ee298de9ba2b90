import { ladder } from '@awlbox/core/plan/ladder/ladder'
import { hash } from '@node-rs/argon2'
import { addDays, formatISO, subDays } from 'date-fns'
import { count, eq } from 'drizzle-orm'
import { defaultHouseStyle } from '@awlbox/core/contracts/house-style'
import type { Aim, Lesson } from '@awlbox/core/contracts/lesson'
import type { Answer, Help, Level, Rung } from '@awlbox/core/contracts/reply'
import { findExamples } from '@awlbox/core/plan/examples'
import { surveyThings } from '@awlbox/core/plan/kit'
import { seeded } from '@awlbox/core/plan/seeded'
import { changeStep, removeStep } from '@awlbox/core/script/edit'
import { aimOf } from '@awlbox/core/plan/aim'
import { timeLesson } from '@awlbox/core/script/time'
import { fromTemplate } from '@awlbox/core/script/template/lesson'
import { startState } from '@awlbox/core/live/state'
import { packOf } from '@awlbox/core/send/pack'
import { kinds, lessonFrom } from './kinds.ts'
import { createLesson } from '../lessons/store.ts'
import { makeLive } from '../live/store.ts'
import type { Db } from '../platform/db.ts'
import {
  children,
  classes,
  consents,
  householdKits,
  households,
  judgements,
  librarySegments,
  people,
  publications,
  replies,
  settings,
} from '../platform/schema.ts'

const demoPassword = 'bobbin-parcels'
const wagtails = [
  'Anouk',
  'Bram',
  'Fenn',
  'Inés',
  'Kofi',
  'Leyla',
  'Maeve',
  'Otis',
  'Rafe',
  'Suri',
  'Teodor',
  'Zuri',
]
const goldcrests = ['Emeka', 'Idris', 'Jude', 'Noor', 'Pia', 'Saskia', 'Tilly', 'Wren']
const streets = [
  'Weir Lane',
  'Tannery Row',
  'Orchard Rise',
  'Mill Bank',
  'Chandler Street',
  'Ferry Steps',
  'Larch Close',
  'Cooper’s Yard',
  'Bell Hill',
  'Quarry Road',
  'Hazel Way',
  'Station Mews',
  'Kiln Street',
  'Sorrel Walk',
  'Dyer’s Court',
  'Plum Lane',
  'Ropewalk',
  'Signal Terrace',
  'Meadow End',
  'Harbour View',
]
/** Hidden ability of each Wagtail, 0–1, from which the made-up replies come. */
const ability = [0.45, 0.7, 0.5, 0.92, 0.9, 0.6, 0.95, 0.45, 0.65, 0.5, 0.55, 0.75]

const ids = (prefix: string): (() => string) => {
  let n = 0
  return () => `${prefix}${(n += 1).toString(36)}`
}
function demoLesson(title: string, ideaId: string, age: number, aim: Aim, seed: number): Lesson {
  const found = findExamples(aim, { zero: defaultHouseStyle.zeroIsPart, seed })
  if (!found.ok) throw new Error(found.conflict)
  return fromTemplate({
    title,
    ideaId,
    age,
    aim,
    examples: found.sets[0]!.examples,
    style: defaultHouseStyle,
    newId: ids('x'),
  })
}
const aim = (structure: Aim['structure'], upTo: number, more: Partial<Aim> = {}): Aim =>
  aimOf({ structure, upTo, ...more })

const spoken = [['English'], ['English', 'Spanish'], ['English'], ['English', 'Urdu'], ['Polish', 'English']]

/** Fills an empty database with the demo setting; false when there is anything in it already. */
export async function seedDemo(db: Db): Promise<boolean> {
  const [any] = await db.select({ n: count() }).from(settings)
  if (any!.n > 0) return false
  const passwordHash = await hash(demoPassword)
  await db.transaction(async (raw) => {
    const tx = raw as unknown as Db
    const [setting] = await tx
      .insert(settings)
      .values({ name: 'Cobblegate Early Years', houseStyle: defaultHouseStyle })
      .returning()
    const staff = await tx
      .insert(people)
      .values([
        {
          settingId: setting!.id,
          email: 'marnie@cobblegate.example',
          name: 'Marnie Lund',
          role: 'teacher',
          passwordHash,
        },
        {
          settingId: setting!.id,
          email: 'desh@cobblegate.example',
          name: 'Desh Pellow',
          role: 'teacher',
          passwordHash,
        },
        {
          settingId: setting!.id,
          email: 'owner@cobblegate.example',
          name: 'Petra Vole',
          role: 'owner',
          passwordHash,
        },
      ])
      .returning()
    const marnie = staff[0]!
    const [w, g] = await tx
      .insert(classes)
      .values([
        { settingId: setting!.id, teacherId: marnie.id, name: 'Wagtails', age: 4 },
        { settingId: setting!.id, teacherId: marnie.id, name: 'Goldcrests', age: 3 },
      ])
      .returning()
    const homes = await tx
      .insert(households)
      .values(
        streets.map((name, i) => ({
          settingId: setting!.id,
          name,
          youngerChild: i % 5 === 2,
          phone: i === 7 ? false : true,
          printer: i % 4 === 3 ? null : i % 3 !== 1,
          metered: i % 6 === 4,
        })),
      )
      .returning()
    const kids = await tx
      .insert(children)
      .values([
        ...wagtails.map((name, i) => ({
          classId: w!.id,
          householdId: homes[i]!.id,
          // Two homes take turns with one of them.
          secondHouseholdId: i === 5 ? homes[17]!.id : null,
          given: name,
          name,
          languages: spoken[i % spoken.length]!,
          note: i === 4 ? 'No nuts, not even in a game. Wears glasses: large print helps.' : '',
        })),
        ...goldcrests.map((name, i) => ({
          classId: g!.id,
          householdId: homes[12 + i]!.id,
          given: name,
          name,
        })),
      ])
      .returning()
    const today = new Date()
    await tx.insert(consents).values(
      kids.flatMap((k, i) =>
        (['photos', 'sound', 'showing', 'naming'] as const)
          .filter((kind) => kind === 'photos' || i % 3 !== 1)
          .map((kind) => ({
            childId: k.id,
            kind,
            given: !((kind === 'showing' || kind === 'naming') && i % 4 === 0),
            giver: ['mum', 'dad', 'gran', 'carer'][i % 4]!,
            day: formatISO(subDays(today, 60 + i), { representation: 'date' }),
            byId: marnie.id,
          })),
      ),
    )
    const day = (n: number) => formatISO(addDays(today, n), { representation: 'date' })
    const lesson = (classId: string, at: number, doc: Lesson) =>
      createLesson(tx, {
        classId,
        day: day(at),
        doc,
        byId: marnie.id,
        style: defaultHouseStyle,
        createdAt: subDays(today, Math.max(0, -at) + 2),
      })
    await lesson(
      w!.id,
      2,
      demoLesson(
        'Seven parcels, two pigeon-holes',
        'parts-7',
        4,
        aim('parts', 7, { mustHave: ['turn-round'] }),
        7,
      ),
    )
    await lesson(
      w!.id,
      3,
      withFaults(demoLesson('Parcels left at doors', 'take-10', 4, aim('take-away', 10), 3)),
    )
    await lesson(w!.id, 5, demoLesson('Street of doors', 'count-on', 4, aim('count-on', 10), 5))
    const stamps = demoLesson('Five stamps', 'parts-5', 3, aim('parts', 5, { count: 3 }), 2)
    const live = await lesson(g!.id, 2, stamps)
    await makeLive(tx, {
      lessonId: live,
      revision: 1,
      doc: stamps,
      style: defaultHouseStyle,
      pace: null,
      startsAt: new Date(`${day(2)}T09:30`),
      minutes: 20,
      state: startState(stamps),
      byId: marnie.id,
    })
    for (const [file, className, at] of kinds)
      await lesson(className === 'Wagtails' ? w!.id : g!.id, at, lessonFrom(file, ids('k')))
    await tx.insert(householdKits).values(homes.slice(0, 18).map((home, i) => madeUpKit(home.id, i)))
    const kept = lessonFrom('skittles-in-the-hall', ids('l')).segments.find(
      (s) => s.kind === 'things needed',
    )!
    await tx.insert(librarySegments).values([
      {
        settingId: setting!.id,
        segment: kept,
        seconds: timeLesson({ segments: [kept], age: 5 }, defaultHouseStyle).film,
        byId: staff[1]!.id,
      },
      {
        settingId: setting!.id,
        segment: lessonFrom('tens-on-and-back', ids('m')).segments[1]!,
        seconds: 18,
        byId: marnie.id,
      },
    ])
    await tx
      .update(people)
      .set({ hours: [60, 45, 60, 30, 75, 0, 90] })
      .where(eq(people.id, marnie.id))
    const past = async (
      classId: string,
      at: number,
      title: string,
      ideaId: string,
      a: Aim,
      seed: number,
      reply: { names: readonly string[]; judged: number },
    ) => {
      const doc = demoLesson(title, ideaId, 4, a, seed)
      const lessonId = await lesson(classId, at, doc)
      const sentAt = addDays(today, at)
      const pack = packOf(doc, ladder, defaultHouseStyle)
      const [pub] = await tx
        .insert(publications)
        .values({ lessonId, lessonRevision: 1, pack, sentAt, byId: marnie.id })
        .returning()
      let n = 0
      for (const name of reply.names) {
        const i = wagtails.indexOf(name) >= 0 ? wagtails.indexOf(name) : goldcrests.indexOf(name)
        const kid = kids.find((k) => k.name === name)!
        const r = madeUpReply(pack.tasks, ability[i % ability.length]!, seed * 100 + i)
        const receivedAt = new Date(sentAt.getTime() + (6 + (i % 4)) * 3_600_000 + i * 61_000)
        const [row] = await tx
          .insert(replies)
          .values({
            publicationId: pub!.id,
            childId: kid.id,
            key: crypto.randomUUID(),
            answers: r.answers,
            help: r.help,
            words: r.words,
            receivedAt,
            updatedAt: receivedAt,
          })
          .returning()
        if (n < reply.judged)
          await tx.insert(judgements).values({
            replyId: row!.id,
            childId: kid.id,
            ideaId,
            level: r.level,
            help: r.help,
            rung: r.rung,
            byId: marnie.id,
            at: new Date(receivedAt.getTime() + 5 * 3_600_000),
          })
        n++
      }
    }
    await past(w!.id, -30, 'Parcels in the van', 'parts-5', aim('parts', 5), 11, {
      names: wagtails,
      judged: 12,
    })
    await past(w!.id, -16, 'Two vans, one depot', 'add-10', aim('add', 10), 12, {
      names: wagtails.filter((n) => n !== 'Leyla'),
      judged: 11,
    })
    await past(w!.id, -4, 'Ten in the egg box', 'parts-10', aim('parts', 10, { mustHave: ['double'] }), 13, {
      names: wagtails.filter((n) => !['Leyla', 'Anouk', 'Zuri'].includes(n)),
      judged: 6,
    })
    await past(g!.id, -9, 'Stamps on letters', 'parts-5', aim('parts', 5, { count: 3 }), 14, {
      names: goldcrests.filter((n) => n !== 'Jude'),
      judged: 7,
    })
  })
  return true
}

/** A script with the slips a tired writer makes, so that the proof-reader has something to say. */
function withFaults(doc: Lesson): Lesson {
  const steps = doc.segments.flatMap((s) => s.steps)
  const write = steps.find((x) => x.verb === 'write')!
  const waits = steps.filter((x) => x.verb === 'wait')
  const clear = steps.filter((x) => x.verb === 'do' && /clear/i.test(x.text))[1]!
  const wrong = write.text.replace(/= (\d+)$/, (_, n: string) => `= ${Number(n) + 1}`)
  return removeStep(removeStep(changeStep(doc, write.id, { text: wrong }), waits[1]!.id), clear.id)
}

/** What a made-up street has in its drawers: most have most things, each lacks something else. */
function madeUpKit(householdId: string, i: number): typeof householdKits.$inferInsert {
  const random = seeded(500 + i)
  const always = ['folded socks', 'spoons', 'plates', 'paper and a pencil']
  const often = surveyThings.filter((t) => !always.includes(t) && random(100) < 72)
  return {
    householdId,
    has: [...always, ...often],
    countable: [10, 20, 20, 30, 50][i % 5]!,
    canPrint: i % 3 === 0,
  }
}

function madeUpReply(
  tasks: ReturnType<typeof packOf>['tasks'],
  can: number,
  seed: number,
): { answers: Answer[]; help: Help; level: Level; rung: Rung; words: string } {
  const random = seeded(seed)
  const chance = () => random(1000) / 1000
  let right = 0
  const answers = tasks.flatMap((t): Answer[] => {
    const knows = chance() < can
    if (knows) right++
    if (t.spec.kind === 'number')
      return [
        {
          taskId: t.id,
          kind: 'number',
          text: String(knows ? t.spec.answer : t.spec.answer + (chance() < 0.5 ? 1 : 2)),
        },
      ]
    if (t.spec.kind === 'choice')
      return [
        {
          taskId: t.id,
          kind: 'choice',
          choice: knows ? t.spec.answer : (t.spec.answer + 1) % t.spec.choices.length,
        },
      ]
    return []
  })
  const help: Help = can > 0.8 ? 'alone' : chance() < 0.6 ? 'nudged' : 'together'
  const level: Level = right >= 2 && help === 'alone' ? 'secure' : right >= 1 ? 'nearly' : 'not yet'
  const words = [
    '',
    'We used bottle tops.',
    'Moved them one by one and told me each time.',
    'Needed a hand with the last one.',
  ][random(4)]!
  return { answers, help, level, rung: can > 0.85 ? 'head' : can > 0.6 ? 'picture' : 'things', words }
}
