import type { TaskSpec } from '@awlbox/core/contracts/lesson'

/** What a home sends back, by kind, in words. */
export const kindWords: Record<TaskSpec['kind'], string> = {
  number: 'a number',
  choice: 'a choice',
  photo: 'a photo',
  several: 'all that fit',
  sentence: 'a sentence of tiles',
  ways: 'all the ways',
  order: 'an order',
  gaps: 'a run with gaps',
  share: 'a fair share',
  match: 'what belongs together',
  own: 'some of their own',
  tell: 'their voice or words',
  line: 'marks on a line',
  circles: 'circles under numerals',
  cross: 'crossing off',
  draw: 'a drawing',
  record: 'a game’s rounds',
}
