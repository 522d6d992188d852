import { expect, test } from 'vitest'
import { addCrosslink } from '../../../src/core/commands/crosslinks'
import { mapsAbove } from '../../../src/core/commands/home-doorways'
import { setBranchLayout, setMapLayout } from '../../../src/core/commands/layouts'
import { fixNumber, numberMap } from '../../../src/core/commands/numbering'
import { splitOff } from '../../../src/core/commands/split-off'
import { MapLayouter } from '../../../src/core/layout/map-layout'
import { mapNumbers } from '../../../src/core/tree/map-numbers'
import { CONTEXT, contents, Garden, plot } from '../gardens'

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

test('a branch is moved with its ids, which makes the topic the home doorway', () => {
  const { garden, map } = plot()
  const summer = garden.topic('Summer')
  const beans = garden.topic('Pick beans')
  garden.do((records, newIds) =>
    addCrosslink(records, { from: garden.topic('Prune'), to: { kind: 'topic', id: beans }, drawn: 'line' }, newIds),
  )
  garden.do((records, newIds) => splitOff(records, { topic: summer }, newIds))
  const child = garden.records.need('topic', summer).opensMap!
  expect(garden.text(map)).not.toContain('Pick beans')
  expect(garden.text(child)).toBe('- Summer\n  - Pick beans\n    - Dwarf\n    - Climbing')
  expect(garden.records.need('topic', beans).place.map).toBe(child)
  expect(garden.records.need('map', child)).toMatchObject({ title: 'Summer', homeDoorway: summer })
  expect(mapsAbove(garden.records, child)).toEqual([map])
  expect(garden.records.crosslinksTo('topic', beans)).toHaveLength(1)
})

test('the root and what has nothing below cannot be split off', () => {
  const { garden } = plot()
  const before = contents(garden.records)
  const split = (text: string) => () =>
    garden.do((records, newIds) => splitOff(records, { topic: garden.topic(text) }, newIds))
  expect(split('Garden')).toThrow('The root of a map cannot be split off')
  expect(split('Dwarf')).toThrow('nothing below')
  expect(contents(garden.records)).toEqual(before)
})
