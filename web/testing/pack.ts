import type { HomePack, HomeTask } from '@awlbox/core/contracts/api/home'

type Asked = Pick<HomeTask, 'id' | 'prompt' | 'kind'> & Partial<HomeTask>
const taskWith = (t: Asked): HomeTask => ({
  choices: [],
  slots: [],
  numbers: [],
  look: null,
  sets: [],
  ...t,
})
/** What a home is sent, with the tasks a test needs. */
export const packWith = (tasks: readonly Asked[], more: Partial<HomePack> = {}): HomePack => ({
  id: 'pack',
  className: 'Wagtails',
  sentAt: '2026-11-26T08:30:00Z',
  due: null,
  closed: false,
  film: null,
  pack: {
    title: 'Seven parcels',
    aim: 'Parts of seven',
    needs: [],
    cautions: [],
    ways: [],
    adult: { why: null, see: [], ways: [], not: null, note: [], answers: [] },
    answers: [],
    sheets: [],
    tasks: tasks.map(taskWith),
  },
  children: [{ id: 'suri', name: 'Suri', photos: true, sound: true, level: null }],
  replies: [],
  ...more,
})
