import { expect, test } from 'vitest'
import { Lexicon } from '../../../src/core/matching/lexicon'
import { closePairs } from '../../../src/core/network/closeness'
import { english } from '../../../src/server/lexicon/lexicon'

const meaning = (text: string, note = '') => ({ id: text, text, note })

test('texts that share what is rare are close, closest first, and say by which words; what is common makes none close', () => {
  const found = closePairs(
    [
      meaning('Read the water gauges weekly'),
      meaning('Weekly reading of water gauges'),
      meaning('Water the plants'),
      meaning('Water for the pond'),
      meaning('Water under the bridge'),
      meaning('Gauges'),
      meaning('Adders on the boards', 'Look under warm boards for adders in spring.'),
      meaning('Where adders lie', 'Adders lie on warm boards in spring.'),
    ],
    Lexicon.EMPTY,
  )
  expect(found.map(({ a, b }) => [a, b])).toEqual([
    ['Read the water gauges weekly', 'Weekly reading of water gauges'],
    ['Adders on the boards', 'Where adders lie'],
  ])
  expect(found[0]!.closeness).toBeCloseTo(1)
  expect(found[1]!.shared).toContain('adders')
})

test('words that mean the same bring texts closer', () => {
  const texts = [
    meaning('Buy cheap automobile tyres'),
    meaning('Purchase of inexpensive car tyres'),
    meaning('Cook rice'),
  ]
  const among = (lexicon: Lexicon) =>
    closePairs(
      [...texts, ...Array.from({ length: 30 }, (_, i) => meaning(`Other matter number ${i}`))],
      lexicon,
    ).filter(({ a, b }) => a.startsWith('Buy') && b.startsWith('Purchase'))
  expect(among(Lexicon.EMPTY)).toEqual([])
  expect(among(english())).toHaveLength(1)
})
