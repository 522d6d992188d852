import { expect, test } from 'vitest'
import { bringBack } from '../../../src/core/commands/bring-back'
import { addCrosslink } from '../../../src/core/commands/crosslinks'
import { makeMap } from '../../../src/core/commands/maps'
import { splitOff } from '../../../src/core/commands/split-off'
import { writeNote } from '../../../src/core/commands/write-note'
import { crosslinkProblems } from '../../../src/core/network/check-links'
import { COLLECTION, Garden, plot } from '../gardens'

function split() {
  const garden = new Garden()
  const home = garden.grow('Garden\nSpring\n  Sow peas\n  Prune\nSummer')
  const spring = garden.topic('Spring')
  garden.do((r, m) => splitOff(r, { topic: spring }, m))
  const child = garden.records.need('topic', spring).opensMap!
  return { garden, home, spring, child, root: garden.records.root(child)!.id }
}

test('what was split off comes back as it was', () => {
  const garden = new Garden()
  const map = garden.grow('Garden\nSpring\n  Sow peas\n  Prune\nSummer')
  const before = garden.text(map)
  garden.do((r, m) => splitOff(r, { topic: garden.topic('Spring') }, m))
  garden.do((r, m) => bringBack(r, { topic: garden.topic('Spring') }, m))
  expect(garden.text(map)).toBe(before)
})

test('links from the doorway and the root to that map go; all others lead to the topic', () => {
  const { garden, spring, child, root } = split()
  const summer = garden.topic('Summer')
  for (const from of [spring, root, summer])
    garden.do((r, m) => addCrosslink(r, { from, to: { kind: 'map', id: child }, drawn: 'quiet' }, m))
  garden.do((r, m) => addCrosslink(r, { from: root, to: { kind: 'topic', id: spring }, drawn: 'quiet' }, m))
  garden.do((r, m) => bringBack(r, { topic: spring }, m))
  expect(garden.records.crosslinksFrom(spring)).toEqual([])
  expect(garden.records.crosslinksFrom(summer)).toMatchObject([{ to: { kind: 'topic', id: spring } }])
  expect(crosslinkProblems(garden.records, COLLECTION).brokenLinks).toEqual([])
})

test('bringing back is refused for what opens no map, and for a map above its own doorway', () => {
  const { garden, spring } = split()
  expect(() => bringBack(garden.records, { topic: garden.topic('Summer') }, garden.newIds)).toThrow('opens no map')
  const other = garden.do((r, m) => makeMap(r, { collection: COLLECTION, title: 'Other' }, m)).select[0]!
  expect(() => bringBack(garden.records, { topic: other }, garden.newIds)).toThrow('opens no map')
  garden.records.put('topic', {
    ...garden.records.need('topic', spring),
    opensMap: garden.records.need('topic', spring).place.map,
  })
  expect(() => bringBack(garden.records, { topic: spring }, garden.newIds)).toThrow()
})

test('what was written on the child map comes back too, and the map goes into the trash', () => {
  const { garden, map } = plot()
  const before = garden.text(map)
  garden.do((records, newIds) => splitOff(records, { topic: garden.topic('Summer') }, newIds))
  const doorway = [...garden.records.all('topic')].find((topic) => topic.opensMap)!
  garden.do((records, newIds) =>
    writeNote(records, { topic: garden.records.root(doorway.opensMap!)!.id, base: '', text: 'Hot.' }, newIds),
  )
  garden.do((records, newIds) => bringBack(records, { topic: doorway.id }, newIds))
  expect(garden.text(map)).toBe(before)
  expect(garden.records.need('note', garden.records.need('topic', doorway.id).note).text).toBe('Hot.')
  expect(garden.records.need('map', doorway.opensMap!).trashed).toBe(true)
})
