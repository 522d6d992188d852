import { expect, test } from 'vitest'
import { countNoteWords, countWords } from '../../../src/core/text/word-count'

test('words are counted as they are read: without marks, and without the addresses behind them', () => {
  expect(countWords('')).toBe(0)
  expect(countWords(' Sow  peas – in March, 20 of them.\n')).toBe(7)
  const note = `## To sow

- [x] peas, [the early ones](folvet:topic/00000000-0000-7000-8000-000000000001#words=in%20May)
- [ ] **broad** beans

| Bed | Rows |
| --- | ---: |
| A | 3 |

![A drawing](folvet:file/00000000-0000-7000-8000-000000000002)`
  expect(countNoteWords(note)).toBe(2 + 4 + 2 + 4)
})

test('text that is no word and links that never end are counted in linear time', () => {
  const began = performance.now()
  expect(countNoteWords('](['.repeat(300_000))).toBe(0)
  expect(countNoteWords('*'.repeat(1_000_000))).toBe(0)
  expect(countNoteWords('[a](b) '.repeat(100_000))).toBe(100_000)
  expect(countNoteWords('![a'.repeat(300_000))).toBe(1)
  expect(countNoteWords(`- [x]${' '.repeat(300_000)}\n`.repeat(3))).toBe(0)
  expect(performance.now() - began).toBeLessThan(3_000)
})
