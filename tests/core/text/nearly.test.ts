import fc from 'fast-check'
import { expect, test } from 'vitest'
import { isNearly } from '../../../src/core/text/nearly'

test('words are nearly the same with one letter left out, put in, changed or exchanged with the next, and no more', () => {
  const letter = fc.constantFrom(...'abcd')
  const word = fc.array(letter, { minLength: 5, maxLength: 9 })
  fc.assert(
    fc.property(word, fc.nat(8), letter, (letters, place, other) => {
      const at = place % (letters.length - 1)
      const made = (edit: (copy: string[]) => void) => {
        const copy = [...letters]
        edit(copy)
        return copy.join('')
      }
      const one = letters.join('')
      const mistakes = [
        made((copy) => copy.splice(at, 1)),
        made((copy) => copy.splice(at, 0, other)),
        made((copy) => copy.splice(at, 1, other)),
        made((copy) => copy.splice(at, 2, copy[at + 1]!, copy[at]!)),
      ]
      for (const mistake of mistakes) expect([isNearly(one, mistake), isNearly(mistake, one)]).toEqual([true, true])
      expect(isNearly(one, `xy${one}`)).toBe(false)
      expect(isNearly(one, `x${one.slice(0, -1)}y`)).toBe(false)
    }),
  )
  expect(isNearly('bog', 'bag')).toBe(false)
})
