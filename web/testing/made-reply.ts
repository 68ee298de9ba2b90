import type { ReplyRecord } from '@awlbox/core/contracts/api/look'

/** A reply as the server gives it, for tests: one number, with what the home said. */
export const madeReply = (child: string, more: Partial<ReplyRecord> = {}): ReplyRecord =>
  ({
    id: `reply-${child}`,
    childId: child,
    child,
    answers: [{ taskId: 'n', text: '6', choice: null, photoId: null }],
    help: 'nudged',
    words: 'He used his fingers.',
    receivedAt: '2026-11-26T18:42:00Z',
    updatedAt: '2026-11-26T18:42:00Z',
    publicationId: 'p',
    tasks: [
      {
        id: 'n',
        prompt: 'How many parcels?',
        kind: 'number',
        choices: [],
        spec: { kind: 'number', answer: 7 },
        expected: null,
      },
    ],
    photos: [],
    recordings: [],
    gave: null,
    chose: null,
    why: '',
    judgements: [],
    way: null,
    feeling: null,
    couldNot: false,
    live: false,
    askings: [],
    feedback: null,
    mayShow: false,
    ...more,
  }) as unknown as ReplyRecord
