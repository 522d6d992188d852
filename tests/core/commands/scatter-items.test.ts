import { expect, test } from 'vitest'
import { scatterItems } from '../../../src/core/commands/scatter-items'
import { readText } from '../../../src/core/formats/read-text'
import { drawnPlot } from '../drawn-plot'
import { overlaps } from '../layout/forests'

test('text from elsewhere is laid down as loose branches that do not overlap', () => {
  const { garden, map, layout } = drawnPlot()
  const { items } = readText('Tools\n  Spade\n  Fork\nPots')
  const { select } = garden.do((r, m) => scatterItems(r, { map, x: 10, y: 20, items }, m))
  expect(garden.records.looseBranches(map).map(({ text }) => text)).toEqual(['Tools', 'Pots'])
  expect(select).toHaveLength(2)
  expect(garden.records.children(select[0]!).map(({ text }) => text)).toEqual(['Spade', 'Fork'])
  expect(overlaps(layout())).toEqual([])
  expect(() => garden.do((r, m) => scatterItems(r, { map, x: 0, y: 0, items: [] }, m))).toThrow('no text')
})
