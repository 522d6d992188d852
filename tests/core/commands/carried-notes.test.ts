import { expect, test } from 'vitest'
import { carryNote, letGoOfNote } from '../../../src/core/commands/carried-notes'
import { duplicateBranches } from '../../../src/core/commands/duplicate-branches'
import { writeNote } from '../../../src/core/commands/write-note'
import { MapTeller } from '../../../src/core/document/map-document'
import { noteLinks } from '../../../src/core/network/note-links'
import { Garden, refusal } from '../gardens'

function bog() {
  const garden = new Garden()
  const map = garden.grow('Bog\nPools\nPeat')
  garden.grow('Mill\nWheel\nGate')
  const [pools, peat, wheel, gate] = ['Pools', 'Peat', 'Wheel', 'Gate'].map((text) => garden.topic(text))
  const write = (topic: string, base: string, text: string) =>
    garden.do((r, m) => writeNote(r, { topic: topic as never, base, text }, m))
  const note = (topic: string) => garden.records.get('note', garden.records.need('topic', topic).note)?.text ?? ''
  return { garden, map, pools: pools!, peat: peat!, wheel: wheel!, gate: gate!, write, note }
}

test('a note that several topics carry is one text, until one lets go of it', () => {
  const { garden, pools, peat, wheel, write, note } = bog()
  write(pools, '', 'Wet.')
  garden.do((r, m) => carryNote(r, { of: pools, also: wheel }, m))
  write(wheel, 'Wet.', 'Wet, and deep.')
  expect([note(pools), note(wheel)]).toEqual(['Wet, and deep.', 'Wet, and deep.'])
  garden.do((r, m) => letGoOfNote(r, { topic: wheel }, m))
  write(wheel, 'Wet, and deep.', 'Dry.')
  expect([note(pools), note(wheel)]).toEqual(['Wet, and deep.', 'Dry.'])
  expect(refusal(() => garden.do((r, m) => carryNote(r, { of: pools, also: wheel }, m)))).toContain('note of its own')
  expect(refusal(() => garden.do((r, m) => carryNote(r, { of: peat, also: wheel }, m)))).toContain('has no note')
  expect(refusal(() => garden.do((r, m) => carryNote(r, { of: pools, also: pools }, m)))).toContain('already')
})

test('a copy of a topic carries a copy of the note, and what is told of a map tells where else it stands', () => {
  const { garden, map, pools, wheel, write, note } = bog()
  write(pools, '', 'Wet.')
  garden.do((r, m) => carryNote(r, { of: pools, also: wheel }, m))
  const { select } = garden.do((r, m) => duplicateBranches(r, { topics: [pools], onto: null }, m))
  write(select[0]!, 'Wet.', 'Copied.')
  expect([note(pools), note(wheel), note(select[0]!)]).toEqual(['Wet.', 'Wet.', 'Copied.'])
  const told = new MapTeller(garden.records, () => true).document(garden.records.need('map', map))
  expect(told.root.below[0]!.alsoCarriedBy).toMatchObject([{ id: wheel, text: 'Wheel', map: { title: 'Mill' } }])
  const alone = new MapTeller(garden.records, (id) => id === map).document(garden.records.need('map', map))
  expect(alone.root.below[0]!.alsoCarriedBy).toEqual([])
})

test('what a note leads to tells from where, for all that carry it', () => {
  const { garden, map, pools, peat, wheel, gate, write } = bog()
  write(pools, '', `See [the gate](folvet:topic/${gate}#words=open%20it) and [the gate](folvet:topic/${gate}).`)
  garden.do((r, m) => carryNote(r, { of: pools, also: wheel }, m))
  write(peat, '', `folvet:topic/${gate.slice(1)} and https://example.org/${gate}`)
  expect(noteLinks(garden.records)).toEqual(new Map([[gate, [pools, wheel].sort()]]))
  const mill = garden.records.need('topic', gate).place.map
  const told = new MapTeller(garden.records, () => true).document(garden.records.need('map', mill))
  const links = told.root.below.find(({ id }) => id === gate)!.links
  expect(links).toMatchObject([
    { kind: 'comes from', label: 'in its note', target: { id: pools, map: { id: map } } },
    { kind: 'comes from', label: 'in its note', target: { id: wheel } },
  ])
})
