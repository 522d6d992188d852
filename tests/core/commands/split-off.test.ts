import { expect, test } from 'vitest'
import { setBranchLayout, setMapLayout } from '../../../src/core/commands/layouts'
import { fixNumber, numberMap } from '../../../src/core/commands/numbering'
import { splitOff } from '../../../src/core/commands/split-off'
import { MapLayouter } from '../../../src/core/layout/map-layout'
import { mapNumbers } from '../../../src/core/tree/map-numbers'
import { CONTEXT, Garden } from '../gardens'

function planted() {
  const garden = new Garden()
  const map = garden.grow('Garden\nSpring\n  Sow peas\n    Early\n  Prune\nSummer\n  Pick beans')
  const split = (text: string) => {
    const topic = garden.topic(text)
    garden.do((r, m) => splitOff(r, { topic }, m))
    return garden.records.need('map', garden.records.need('topic', topic).opensMap)
  }
  return { garden, map, split }
}

test('a child map is numbered on from the number that the topic had', () => {
  const { garden, map, split } = planted()
  garden.do((r, m) => numberMap(r, { map, scheme: 'decimal' }, m))
  const child = split('Summer')
  expect(child.numbering).toBe('decimal')
  expect(mapNumbers(garden.records, child.id).get(garden.topic('Pick beans'))).toBe('2.1')
  garden.do((r, m) => numberMap(r, { map, scheme: 'turns' }, m))
  garden.do((r, m) => fixNumber(r, { topic: garden.topic('Spring'), number: '7' }, m))
  const other = split('Spring')
  expect(mapNumbers(garden.records, other.id).get(garden.topic('Sow peas'))).toBe('7a')
  expect(mapNumbers(garden.records, other.id).get(garden.topic('Early'))).toBe('7a1')
})

test('a child map is set as the branch was', () => {
  const { garden, map, split } = planted()
  garden.do((r, m) => setMapLayout(r, { map, layout: 'right' }, m))
  garden.do((r, m) => setBranchLayout(r, { topics: [garden.topic('Spring')], layout: 'down' }, m))
  expect(split('Sow peas').layout).toBe('down')
  expect(split('Summer').layout).toBe('right')
})

test('numbers are those of the whole map, whatever of it is shown', () => {
  const { garden, map } = planted()
  garden.do((r, m) => numberMap(r, { map, scheme: 'decimal' }, m))
  const alone = new MapLayouter(garden.records, map, CONTEXT, ({ text }) =>
    ['Garden', 'Summer', 'Pick beans'].includes(text),
  )
  const numbers = alone.layout(null).boxes.map(({ topic, number }) => [topic.text, number])
  expect(numbers).toEqual([
    ['Garden', null],
    ['Summer', '2'],
    ['Pick beans', '2.1'],
  ])
})
