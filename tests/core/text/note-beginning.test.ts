import { expect, test } from 'vitest'
import { EXCERPT_WINDOW, excerpt, noteBeginning, noteExcerpt } from '../../../src/core/text/note-beginning'

test('an excerpt of a note is read as a person reads it, around the first word that is looked for', () => {
  const note = `## Peat

| Shape | Means |
| --- | ---: |
| saw | a ditch draws |

\`\`\`
line-3.csv
\`\`\`

See [the readings](folvet:topic/00000000-0000-7000-8000-000000000001#words=in%20May) of *every* Friday.`
  expect(noteExcerpt(note, ['readings'], 30, 60)).toBe('…draws line-3.csv See the readings of every Friday.')
  expect(noteExcerpt(note, ['nowhere'], 30, 20)).toBe('Peat Shape, Means…')
  expect(noteExcerpt('Late frost and early frost', ['frost', 'late'], 60, 240)).toBe('Late frost and early frost')
})

test('a piece that was cut in the middle of an address shows nothing of it', () => {
  expect(noteExcerpt('7000-8000#words=x) of May, see [June](folvet:topic/0000', ['may'], 60, 240)).toBe(
    'of May, see June',
  )
  const words = Array.from({ length: 200 }, (_, i) => `word${i}`)
  const told = excerpt(words.join(' '), ['word100'], 60, 240)
  expect(told).toMatch(/^…word\d+ .*word100.*word\d+…$/)
  expect(told.length).toBeLessThan(245)
  expect(excerpt(`${'水'.repeat(500)}泥${'水'.repeat(500)}`, ['泥'], 60, 240)).toContain('泥')
})

test('the worst of marks take little time', () => {
  const began = performance.now()
  for (const mark of ['](', '[', '*_', '|-', '|', '<http:', '- [x] ', '(', '\\']) {
    noteExcerpt(mark.repeat(EXCERPT_WINDOW.most).slice(0, EXCERPT_WINDOW.most), ['x'], 60, 240)
    noteBeginning(mark.repeat(100_000), 300)
  }
  expect(performance.now() - began).toBeLessThan(1_500)
})
