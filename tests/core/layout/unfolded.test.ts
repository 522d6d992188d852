import { expect, test } from 'vitest'
import { makeDoorway } from '../../../src/core/commands/doorways'
import { setText } from '../../../src/core/commands/set-text'
import { MapLayouter } from '../../../src/core/layout/map-layout'
import { unfoldedChildren } from '../../../src/core/layout/unfolded'
import { CONTEXT, Garden } from '../gardens'

test('a map unfolds below its doorway, follows what is written there, and never within itself', () => {
  const garden = new Garden()
  const bog = garden.grow('Bog\nPools\nPeat')
  const pools = garden.grow('Pools map\nDeep\nBack to the bog')
  const [doorway, back] = [garden.topic('Pools'), garden.topic('Back to the bog')]
  garden.do((r, m) => makeDoorway(r, { topic: doorway, map: pools }, m))
  garden.do((r, m) => makeDoorway(r, { topic: back, map: bog }, m))
  const unfolded = unfoldedChildren(garden.records, new Set([doorway, back]))
  const layouter = new MapLayouter(garden.records, bog, CONTEXT, undefined, unfolded)
  const shown = () => layouter.layout(null).boxes.map(({ topic, level }) => `${level} ${topic.text}`)
  expect(shown().sort()).toEqual(['0 Bog', '1 Pools', '1 Peat', '2 Deep', '2 Back to the bog'].sort())
  garden.do((r, m) => setText(r, { topic: garden.topic('Deep'), text: 'Very deep' }, m))
  expect(shown()).toContain('2 Very deep')
  const boxes = layouter.layout(null).boxes
  for (const [i, a] of boxes.entries())
    for (const b of boxes.slice(i + 1))
      expect(a.x < b.x + b.width && b.x < a.x + a.width && a.y < b.y + b.height && b.y < a.y + a.height).toBe(false)
})
