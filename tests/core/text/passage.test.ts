import fc from 'fast-check'
import { expect, test } from 'vitest'
import { MOST_PASSAGE } from '../../../src/core/formats/own-address'
import { findPassage, passageOf } from '../../../src/core/text/passage'

test('words are found one after the other, whatever stands between them, and nothing else is', () => {
  const note = 'Sow peas — deep.\n\nSow **Peas** *before* the last frost.'
  const found = (words: string) => {
    const span = findPassage(note, words)
    return span && note.slice(span.from, span.to)
  }
  expect(found('peas before THE')).toBe('Peas** *before* the')
  expect(found('sow peas sow')).toBeNull()
  expect(found('deep sow peas before')).toBe('deep.\n\nSow **Peas** *before')
  expect(found('pea')).toBeNull()
  expect(found('— !')).toBeNull()
})

test('what was cut out of a text is found in it, as far as an address takes', () => {
  const words = fc.array(fc.constantFrom('an', 'ana', 'nan', 'bog', 'Moor', 'é', '12'), { minLength: 1, maxLength: 60 })
  fc.assert(
    fc.property(words, fc.nat(), fc.nat(), (all, a, b) => {
      const [from, to] = [a % all.length, b % all.length].sort((x, y) => x - y) as [number, number]
      const passage = passageOf(all.slice(from, to + 1).join(' '))
      expect(passage.length).toBeLessThanOrEqual(MOST_PASSAGE)
      const span = findPassage(all.join(', '), passage)!
      expect(passageOf(all.join(', ').slice(span.from, span.to))).toBe(passage)
      // It is the first one.
      const before = all.join(', ').slice(0, span.to - 1)
      expect(findPassage(before, passage)).toBeNull()
    }),
  )
})

test('takes no longer for the worst of texts', () => {
  const text = `${'a '.repeat(250_000)}b`
  const begun = performance.now()
  expect(findPassage(text, `${'a '.repeat(50)}b`)).not.toBeNull()
  expect(performance.now() - begun).toBeLessThan(2_000)
})
