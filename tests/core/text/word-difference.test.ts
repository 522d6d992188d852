import fc from 'fast-check'
import { expect, test } from 'vitest'
import { wordDifference } from '../../../src/core/text/word-difference'

test('the words are found that only one of two texts has', () => {
  expect(wordDifference('Read the wells weekly', 'Read all wells weekly')).toEqual([
    [
      { text: 'Read ', isOwn: false },
      { text: 'the', isOwn: true },
      { text: ' wells weekly', isOwn: false },
    ],
    [
      { text: 'Read ', isOwn: false },
      { text: 'all', isOwn: true },
      { text: ' wells weekly', isOwn: false },
    ],
  ])
})

test('pieces make up the texts, and what is shared is the same in both', () => {
  fc.assert(
    fc.property(fc.string({ unit: 'grapheme' }), fc.string({ unit: 'grapheme' }), (a, b) => {
      const [first, second] = wordDifference(a, b)
      const text = (pieces: typeof first) => pieces.map((piece) => piece.text).join('')
      const shared = (pieces: typeof first) => text(pieces.filter(({ isOwn }) => !isOwn))
      expect([text(first), text(second)]).toEqual([a, b])
      expect(shared(first)).toBe(shared(second))
    }),
  )
})
