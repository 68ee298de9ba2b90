import type { HomePack } from '@awlbox/core/contracts/api/home'

/** What a home is sent, with the tasks a test needs. */
export const packWith = (tasks: HomePack['pack']['tasks']): HomePack => ({
  id: 'pack',
  className: 'Wagtails',
  sentAt: '2026-11-26T08:30:00Z',
  film: null,
  pack: { title: 'Seven parcels', aim: 'Parts of seven', needs: [], cautions: [], adultNote: [], tasks },
  youngerChild: false,
  children: [{ id: 'suri', name: 'Suri', photos: true }],
  replies: [],
})
