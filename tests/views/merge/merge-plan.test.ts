import { expect, test } from 'vitest'
import { changedSince, type KeptMerge, type PlanAnswer } from '../../../src/views/merge/merge-plan'

const kept = (texts: [string, string][]) => ({ texts: new Map(texts) }) as unknown as KeptMerge
const now = (topics: [string, string][]) =>
  ({ topics: Object.fromEntries(topics.map(([id, text]) => [id, { text }])) }) as unknown as PlanAnswer

test.each<[string, [string, string][], [string, string][], string | null]>([
  ['nothing where all is as it was', [['a', 'Water']], [['a', 'Water']], null],
  ['nothing where no plan was kept', [], [['a', 'Water']], null],
  [
    'what was reworded, what is gone, and what is new',
    [
      ['a', 'Water'],
      ['b', 'Peat'],
      ['c', 'Reed'],
    ],
    [
      ['a', 'Waters'],
      ['c', 'Reed'],
      ['d', 'Moss'],
      ['e', 'Fern'],
    ],
    '1 reworded, 1 gone, 2 new',
  ],
])('a plan that goes on tells %s', (_, before, after, words) => {
  expect(changedSince(kept(before), now(after))).toBe(words)
})
