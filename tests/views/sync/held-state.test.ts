import { describe, expect, test } from 'vitest'
import type { ToldChange } from '../../../src/core/changes/edit'
import { addTopic } from '../../../src/core/commands/add-topic'
import type { Outcome } from '../../../src/core/commands/command'
import { addCrosslink } from '../../../src/core/commands/crosslinks'
import { moveTopics } from '../../../src/core/commands/move-topics'
import { setText } from '../../../src/core/commands/set-text'
import type { MapId } from '../../../src/core/records/ids'
import type { MapSnapshot } from '../../../src/core/records/snapshot'
import { HeldState } from '../../../src/views/sync/held-state'
import { Garden } from '../../core/gardens'

const snapshotOf = ({ records }: Garden, map: MapId, number: number): MapSnapshot => ({
  number,
  map,
  records: {
    map: [records.need('map', map)],
    topic: [...records.topicsOf(map)],
    note: [...records.all('note')],
    crosslink: [...records.all('crosslink')],
  },
  farTopics: [],
})

const committed = ({ change }: Outcome, number: number): ToldChange => ({
  ...change,
  maps: null,
  step: null,
  number,
  person: 'p',
  personName: 'Somebody',
  at: '2026-05-01T00:00:00.000Z',
})

function open() {
  const garden = new Garden()
  const map = garden.grow('Garden\nSpring\n  Sow peas\nSummer')
  const held = new HeldState()
  held.open(snapshotOf(garden, map, 1))
  return { garden, map, held, spring: garden.topic('Spring'), peas: garden.topic('Sow peas') }
}

describe('what a browser holds', () => {
  test('shows a change at once, and gives it up when it is refused', () => {
    const { garden, held, spring } = open()
    const { change } = addTopic(held.records, { parent: spring, after: 'last', text: 'Weed' }, garden.newIds)
    expect(held.perform(change).ok).toBe(true)
    expect(held.records.children(spring).map(({ text }) => text)).toEqual(['Sow peas', 'Weed'])
    expect(held.isPending(change.id)).toBe(true)
    held.drop(change.id)
    expect(held.records.children(spring).map(({ text }) => text)).toEqual(['Sow peas'])
    expect(held.isPending(change.id)).toBe(false)
  })

  test('shows a kept map with what was told since, and asks for it anew when the server can be reached', () => {
    const { garden, map, spring, peas } = open()
    const kept = snapshotOf(garden, map, 3)
    const leek = committed(setText(garden.records, { topic: peas, text: 'Sow leek' }, garden.newIds), 4)
    const dig = committed(setText(garden.records, { topic: spring, text: 'Dig' }, garden.newIds), 5)
    const held = new HeldState()
    held.heardBefore([leek, dig])
    held.openKept(kept)
    expect([held.records.need('topic', peas).text, held.records.need('topic', spring).text]).toEqual([
      'Sow leek',
      'Dig',
    ])
    expect(held.staleMaps).toEqual([map])
    held.open(snapshotOf(garden, map, 5))
    expect(held.staleMaps).toEqual([])
    // Of a map that was kept before all of this, nothing is shown that came after what is not known.
    const gap = new HeldState()
    gap.heardBefore([dig])
    gap.openKept(kept)
    expect(gap.records.need('topic', spring).text).toBe('Spring')
    expect(gap.staleMaps).toEqual([map])
  })

  test('leaves the records alone when its own changes come back as they were made', () => {
    const { garden, held, spring, peas } = open()
    const first = addTopic(held.records, { parent: spring, after: 'last', text: 'Weed' }, garden.newIds)
    held.perform(first.change)
    const second = setText(held.records, { topic: peas, text: 'Sow leek' }, garden.newIds)
    held.perform(second.change)
    const { revision } = held.records
    const added = held.records.get('topic', first.select[0]!)
    expect(held.commit([committed(first, 2), committed(second, 3)]).size).toBe(0)
    expect(held.records.revision).toBe(revision)
    expect(held.records.get('topic', first.select[0]!)).toBe(added)
    expect([held.isPending(first.change.id), held.isPending(second.change.id)]).toEqual([false, false])
    expect(held.records.get('topic', peas)?.text).toBe('Sow leek')
  })

  test('keeps its own change on top of what others do meanwhile, until it comes back committed', () => {
    const { garden, held, peas } = open()
    const mine = setText(held.records, { topic: peas, text: 'Mine' }, garden.newIds)
    held.perform(mine.change)
    const theirs = garden.do((records, newIds) => setText(records, { topic: peas, text: 'Theirs' }, newIds))
    held.commit([committed(theirs, 2)])
    expect(held.records.need('topic', peas).text).toBe('Theirs\nMine')
    held.commit([
      committed(
        garden.do(() => mine),
        3,
      ),
    ])
    expect(held.records.need('topic', peas).text).toBe('Theirs\nMine')
    expect(held.isPending(mine.change.id)).toBe(false)
  })

  test('replays on an older snapshot what it has seen since', () => {
    const { garden, map, held, peas } = open()
    const old = snapshotOf(garden, map, 1)
    const later = garden.do((records, newIds) => setText(records, { topic: peas, text: 'Later' }, newIds))
    held.commit([committed(later, 2)])
    held.open(old)
    expect(held.records.need('topic', peas).text).toBe('Later')
  })

  test('asks for more when a branch arrives from a map that is not open, or a link leads to an unknown topic', () => {
    const { garden, map, held, spring } = open()
    garden.grow('Field\nHay\n  Stack')
    const moved = garden.do((records, newIds) =>
      moveTopics(records, { topics: [garden.topic('Hay')], parent: spring, after: 'last', side: null }, newIds),
    )
    expect(held.commit([committed(moved, 2)])).toEqual(new Set([map]))
    held.open(snapshotOf(garden, map, 2))
    garden.grow('Shed\nTools')
    const linked = garden.do((records, newIds) =>
      addCrosslink(records, { from: spring, to: { kind: 'topic', id: garden.topic('Tools') }, drawn: 'quiet' }, newIds),
    )
    expect(held.commit([committed(linked, 3)])).toEqual(new Set([map]))
  })

  test('follows the names of far topics', () => {
    const { garden, map, held } = open()
    garden.grow('Shed\nTools')
    const tools = garden.topic('Tools')
    held.open({ ...snapshotOf(garden, map, 2), farTopics: [{ id: tools, map, text: 'Tools' }] })
    const renamed = garden.do((records, newIds) => setText(records, { topic: tools, text: 'Spades' }, newIds))
    held.commit([committed(renamed, 3)])
    expect(held.farTopics.get(tools)?.text).toBe('Spades')
  })
})
