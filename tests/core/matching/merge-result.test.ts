import fc from 'fast-check'
import { expect, test } from 'vitest'
import { mergeMaps } from '../../../src/core/commands/merge-maps'
import { planMerge } from '../../../src/core/matching/merge-plan'
import { mergeResult } from '../../../src/core/matching/merge-result'
import { topicsInOrder } from '../../../src/core/tree/walk'
import { Garden } from '../gardens'

const outline = fc
  .array(fc.tuple(fc.constantFrom('dam', 'ditch', 'moss', 'well', 'path'), fc.nat(2)), { minLength: 1, maxLength: 12 })
  .map((lines) => lines.map(([text, level], i) => `${'  '.repeat(Math.min(level, i))}${text}`).join('\n'))

test('what a plan is said to make is what it makes', () => {
  fc.assert(
    fc.property(outline, outline, fc.boolean(), (first, second, beside) => {
      const garden = new Garden()
      const target = garden.grow(`Bog\n${first}`)
      const source = garden.grow(`Moor\n${second}`)
      const plan = planMerge(garden.records, target, [source], beside ? 'beside' : 'combined')
      const told = (id: string) => {
        const { text, place } = garden.records.need('topic', id)
        return { text, map: place.map }
      }
      const result = mergeResult(garden.records, plan, told).map(({ text }) => text)
      garden.do((r, m) => mergeMaps(r, { plan }, m))
      expect(result).toEqual([...topicsInOrder(garden.records, target)].map(({ text }) => text))
    }),
    { numRuns: 60 },
  )
})
