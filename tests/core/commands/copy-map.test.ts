import { expect, test } from 'vitest'
import { duplicateMap } from '../../../src/core/commands/copy-map'
import { addCrosslink } from '../../../src/core/commands/crosslinks'
import { splitOff } from '../../../src/core/commands/split-off'
import { plot } from '../gardens'

test('a map is duplicated alone, with doorways to the same maps', () => {
  const { garden, map } = plot()
  garden.do((r, m) => splitOff(r, { topic: garden.topic('Pick beans') }, m))
  const before = garden.records.count('map')
  const root = garden.do((r, m) => duplicateMap(r, { map, withChildren: false }, m)).select[0]!
  expect(garden.records.count('map')).toBe(before + 1)
  const copy = garden.records.need('topic', root).place.map
  expect(garden.records.need('map', copy).title).toBe('Garden, copy')
  expect(garden.text(copy)).toBe(garden.text(map).replace('- Garden', '- Garden'))
  const opened = (of: string) => [...garden.records.topicsOf(of)].flatMap(({ opensMap }) => opensMap ?? [])
  expect(opened(copy)).toEqual(opened(map))
})

test('with its child maps, doorways and links lead from copy to copy, and nothing else changes', () => {
  const { garden, map } = plot()
  const beans = garden.topic('Pick beans')
  garden.do((r, m) =>
    addCrosslink(
      r,
      { from: garden.topic('Sow peas'), to: { kind: 'topic', id: garden.topic('Dwarf') }, drawn: 'quiet' },
      m,
    ),
  )
  garden.do((r, m) => splitOff(r, { topic: beans }, m))
  const child = garden.records.need('topic', beans).opensMap!
  const known = [garden.text(map), garden.text(child)]
  const root = garden.do((r, m) => duplicateMap(r, { map, withChildren: true }, m)).select[0]!
  const copy = garden.records.need('topic', root).place.map
  const doorway = [...garden.records.topicsOf(copy)].find(({ opensMap }) => opensMap)!
  expect(doorway.opensMap).not.toBe(child)
  expect(garden.text(doorway.opensMap!)).toBe(garden.text(child))
  expect(garden.records.need('map', doorway.opensMap).homeDoorway).toBe(doorway.id)
  expect(garden.records.need('map', child).homeDoorway).toBe(beans)
  const peas = [...garden.records.topicsOf(copy)].find(({ text }) => text === 'Sow peas')!
  const [link] = garden.records.crosslinksFrom(peas.id)
  expect(garden.records.need('topic', link!.to.id).place.map).toBe(doorway.opensMap)
  expect([garden.text(map), garden.text(child)]).toEqual(known)
})
