import { describe, expect, test } from 'vitest'
import { inWeek, planWeek, ratesOf, tasksOf, type WeekLesson } from './week.ts'

const lesson = (over: Partial<WeekLesson> = {}): WeekLesson => ({
  id: 'a',
  title: 'Post',
  day: '2027-03-05',
  filmBy: '2027-03-03',
  sendBy: '2027-03-04',
  filmMinutes: 10,
  written: true,
  filmed: 0,
  cut: false,
  sent: false,
  repliesWaiting: 0,
  repliesExpected: 0,
  ...over,
})
const hours = (minutes: number) =>
  ['2027-03-01', '2027-03-02', '2027-03-03', '2027-03-04', '2027-03-05'].map((day) => ({ day, minutes }))
const usual = ratesOf([])

test('three pieces of work make a rate one’s own, by the median', () => {
  expect(ratesOf([{ kind: 'filming', filmMinutes: 10, minutes: 20 }]).own).toEqual([])
  const own = ratesOf(
    [20, 50, 200].map((minutes) => ({ kind: 'filming' as const, filmMinutes: 10, minutes })),
  )
  expect(own.filming).toBe(5)
  expect(own.own).toEqual(['filming'])
})
test('what is done is not to do again', () => {
  expect(tasksOf(lesson(), usual).map((t) => [t.what, t.minutes])).toEqual([
    ['film', 30],
    ['cut', 40],
    ['send', 2],
  ])
  expect(tasksOf(lesson({ filmed: 0.5 }), usual)[0]).toMatchObject({ what: 'film', minutes: 15 })
  expect(tasksOf(lesson({ sent: true, repliesWaiting: 8 }), usual)).toMatchObject([
    { what: 'look', minutes: 12 },
  ])
})
test.each<[string, Partial<WeekLesson>, boolean]>([
  ['goes out in it', {}, true],
  ['goes out later but is filmed in it', { day: '2027-03-12', filmBy: '2027-03-06', sendBy: null }, true],
  ['begins after it', { day: '2027-03-12', filmBy: '2027-03-08', sendBy: '2027-03-10' }, false],
  ['has no dates but its day', { filmBy: null, sendBy: null }, true],
  [
    'went out before with replies waiting',
    { day: '2027-02-25', filmBy: null, sendBy: null, repliesWaiting: 2 },
    true,
  ],
  ['went out before and is looked at', { day: '2027-02-25', filmBy: null, sendBy: null }, false],
])('a lesson that %s: in the week %s', (_, over, is) =>
  expect(inWeek(lesson(over), '2027-03-01', '2027-03-07')).toBe(is),
)
describe('a week', () => {
  test('with time enough has nothing late and nothing to drop', () =>
    expect(planWeek([lesson()], hours(60), usual)).toMatchObject({
      needed: 72,
      free: 300,
      late: [],
      drop: [],
    }))
  test('too full says what is late and by how much', () => {
    const plan = planWeek([lesson()], hours(5), usual)
    expect(plan.late[0]).toMatchObject({ task: { what: 'film' }, short: 15 })
  })
  test('drops looking first, then hand work in cutting, then the lesson that goes out last', () => {
    const plan = planWeek(
      [
        lesson({ repliesExpected: 12 }),
        lesson({ id: 'b', title: 'Later', day: '2027-03-12', filmBy: '2027-03-05', sendBy: '2027-03-05' }),
      ],
      hours(12),
      usual,
    )
    expect(plan.drop.map((d) => d.task.what)).toEqual(expect.arrayContaining(['look', 'cut']))
    expect(plan.drop.findIndex((d) => d.task.what === 'look')).toBeLessThan(
      plan.drop.findIndex((d) => d.task.what === 'cut'),
    )
    expect(plan.drop.find((d) => d.why.startsWith('Leave'))?.task.title ?? 'Later').toBe('Later')
  })
})
