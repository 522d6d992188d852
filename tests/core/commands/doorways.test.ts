import { expect, test } from 'vitest'
import { chooseHomeDoorway, closeDoorway, makeChildMap, makeDoorway } from '../../../src/core/commands/doorways'
import { sendToMap } from '../../../src/core/commands/send-to-map'
import type { TopicId } from '../../../src/core/records/ids'
import { plot, refusal } from '../gardens'

function twoMaps() {
  const { garden, map } = plot()
  const pond = garden.grow('Pond\nNorth bank\n  Reeds\nSouth bank')
  const home = () => garden.records.need('map', pond).homeDoorway
  const open = (text: string) =>
    garden.do((r, m) => makeDoorway(r, { topic: garden.topic(text), map: pond }, m)).select[0]!
  return { garden, map, pond, home, open }
}

test('a map is opened by several doorways, and reached through the one that is chosen', () => {
  const { garden, pond, home, open } = twoMaps()
  const [first, second] = [open('Sow peas'), open('Dwarf')]
  expect(home()).toBe(first)
  garden.do((r, m) => chooseHomeDoorway(r, { topic: second }, m))
  expect(home()).toBe(second)
  garden.do((r, m) => closeDoorway(r, { topic: second }, m))
  expect(home()).toBe(first)
  garden.do((r, m) => closeDoorway(r, { topic: first }, m))
  expect(home()).toBeNull()
  expect(garden.records.need('map', pond).trashed).toBe(false)
})

test('a doorway cannot be the way to a map that is above it', () => {
  const { garden, map, open, home } = twoMaps()
  open('Dwarf')
  const back = garden.do((r, m) => makeDoorway(r, { topic: garden.topic('Reeds'), map }, m)).select[0]!
  const choose = (topic: TopicId) => refusal(() => garden.do((r, m) => chooseHomeDoorway(r, { topic }, m)))
  expect(choose(back)).toMatch(/cannot lead through it/)
  expect(home()).toBe(garden.topic('Dwarf'))
  expect(refusal(() => garden.do((r, m) => makeDoorway(r, { topic: garden.topic('Spring'), map }, m)))).toBe(
    'A topic cannot open the map on which it stands.',
  )
})

test('a child map is made empty, or of copies, and nothing leaves the map', () => {
  const { garden, map } = plot()
  const before = garden.text(map)
  for (const [text, with_] of [
    ['Pick beans', 'copies'],
    ['Dwarf', 'nothing'],
  ] as const)
    garden.do((r, m) => makeChildMap(r, { topic: garden.topic(text), with: with_ }, m))
  expect(garden.text(map)).toBe(before)
  const child = (text: string) => {
    const topics = [...garden.records.all('topic')].filter((topic) => topic.text === text && topic.opensMap)
    return garden.text(topics[0]!.opensMap!)
  }
  expect(child('Pick beans')).toBe('- Pick beans\n  - Dwarf\n  - Climbing')
  expect(child('Dwarf')).toBe('- Dwarf')
})

test('branches go to another map, or copies of them', () => {
  const { garden, pond } = twoMaps()
  const beans = garden.topic('Pick beans')
  garden.do((r, m) => sendToMap(r, { topics: [beans], map: pond, copies: true }, m))
  expect(garden.text(pond)).toContain('  - Pick beans\n    - Dwarf')
  expect(garden.records.need('topic', beans).place.map).not.toBe(pond)
  garden.do((r, m) => sendToMap(r, { topics: [beans], map: pond, copies: false }, m))
  expect(garden.records.need('topic', beans).place.map).toBe(pond)
})
