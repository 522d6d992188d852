import { expect, test } from 'vitest'
import { duplicateBranches } from '../../../src/core/commands/duplicate-branches'
import { writeNote } from '../../../src/core/commands/write-note'
import { plot } from '../gardens'

test('copies stand behind their originals or on another map, with notes and links of their own', () => {
  const { garden, map } = plot()
  const other = garden.grow('Neighbour')
  const spring = garden.topic('Spring')
  garden.do((records, newIds) => writeNote(records, { topic: spring, base: '', text: 'Early.' }, newIds))
  garden.do((records, newIds) => duplicateBranches(records, { topics: [spring], onto: null }, newIds))
  expect(garden.text(map)).toMatch(/- Spring\n.*\n.*\n {2}- Spring\n {4}- Sow peas\n/)
  garden.do((records, newIds) =>
    duplicateBranches(records, { topics: [spring], onto: garden.records.root(other)!.id }, newIds),
  )
  expect(garden.text(other)).toBe('- Neighbour\n  - Spring\n    - Sow peas\n    - Prune')
  const copy = garden.records.children(garden.records.root(other)!.id)[0]!
  expect(copy.note).not.toBe(garden.records.need('topic', spring).note)
  expect(garden.records.need('note', copy.note).text).toBe('Early.')
})
