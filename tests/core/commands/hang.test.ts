import { expect, test } from 'vitest'
import { NewChange } from '../../../src/core/commands/command'
import { foldTopics } from '../../../src/core/commands/fold-topics'
import { hang, placesFor } from '../../../src/core/commands/hang'
import { splitOff } from '../../../src/core/commands/split-off'
import { parentOf, sideOf } from '../../../src/core/records/place'
import { plot } from '../gardens'

test('branches hang at a spot in the order given, on the side that is named or is lower, and show', () => {
  const { garden, map } = plot()
  const [root, spring, autumn] = [garden.topic('Garden'), garden.topic('Spring'), garden.topic('Autumn')]
  garden.do((r, n) => foldTopics(r, { topics: [spring], folded: true }, n))
  const change = new NewChange(garden.records, garden.newIds)
  const topics = ['Climbing', 'Dwarf'].map((text) => change.topic(garden.topic(text)))
  hang(change, topics, { parent: change.topic(spring), after: null })
  expect(change.records.children(spring).map(({ text }) => text)).toEqual(['Climbing', 'Dwarf', 'Sow peas', 'Prune'])
  expect(change.topic(spring).folded).toBe(false)
  expect(topics.map(({ id }) => sideOf(change.topic(id)))).toEqual([null, null])
  // What hangs on the root has a side: its own, where it hung there before, unless one is named.
  const before = sideOf(change.topic(autumn))
  hang(change, [change.topic(autumn)], { parent: change.topic(root), after: null })
  expect(sideOf(change.topic(autumn))).toBe(before)
  const other = before === 'left' ? 'right' : 'left'
  hang(change, [change.topic(autumn)], { parent: change.topic(root), after: 'last', side: other })
  expect([sideOf(change.topic(autumn)), parentOf(change.topic(autumn))]).toEqual([other, root])
  expect(change.records.root(map)!.id).toBe(root)
})

test('new places follow one another and are the layout’s to settle', () => {
  const { garden, map } = plot()
  const parent = garden.records.need('topic', garden.topic('Spring'))
  const places = placesFor(garden.records, { parent, after: garden.topic('Sow peas') }, [1, 1, 1])
  expect(places.map(({ kind, map: on }) => [kind, on])).toEqual(Array(3).fill(['arranged', map]))
  const ranks = places.map(({ rank }) => rank)
  expect(ranks).toEqual([...ranks].sort())
  expect(new Set(ranks).size).toBe(3)
})

test('a branch never comes onto a map to which it leads', () => {
  const { garden } = plot()
  const summer = garden.topic('Summer')
  garden.do((r, n) => splitOff(r, { topic: summer }, n))
  const change = new NewChange(garden.records, garden.newIds)
  const inside = change.topic(garden.topic('Pick beans'))
  expect(() => hang(change, [change.topic(summer)], { parent: inside, after: 'last' })).toThrow(
    'This branch opens the map Summer, so it cannot move into it.',
  )
})
