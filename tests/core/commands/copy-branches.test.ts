import { expect, test } from 'vitest'
import { NewChange } from '../../../src/core/commands/command'
import { copyBranches } from '../../../src/core/commands/copy-branches'
import { addCrosslink } from '../../../src/core/commands/crosslinks'
import { encloseTopics } from '../../../src/core/commands/enclosures'
import { placesFor } from '../../../src/core/commands/hang'
import { fixNumber } from '../../../src/core/commands/numbering'
import { addWeblink } from '../../../src/core/commands/weblinks'
import { writeNote } from '../../../src/core/commands/write-note'
import { plot } from '../gardens'

test('a copy has what is inside of the branch, but neither its numbers nor what reaches out of it', () => {
  const { garden } = plot()
  const topic = (text: string) => garden.topic(text)
  const link = (from: string, to: string) => {
    const far = { kind: 'topic', id: topic(to) } as const
    garden.do((r, n) => addCrosslink(r, { from: topic(from), to: far, drawn: 'line' }, n))
  }
  garden.do((r, n) => writeNote(r, { topic: topic('Dwarf'), base: '', text: 'Small.' }, n))
  garden.do((r, n) => addWeblink(r, { topic: topic('Dwarf'), url: 'example.org', title: 'How' }, n))
  garden.do((r, n) => fixNumber(r, { topic: topic('Dwarf'), number: '7b' }, n))
  garden.do((r, n) => encloseTopics(r, { topics: [topic('Dwarf'), topic('Climbing')], title: 'Beans' }, n))
  link('Dwarf', 'Climbing')
  link('Dwarf', 'Prune')

  const change = new NewChange(garden.records, garden.newIds)
  const head = change.topic(topic('Summer'))
  const [place] = placesFor(change.records, { parent: change.topic(topic('Autumn')), after: 'last' }, [1])
  const made = copyBranches(change, [{ head, place: place! }])
  expect(made.size).toBe(4)
  const [dwarf, climbing] = [made.get(topic('Dwarf'))!, made.get(topic('Climbing'))!]
  const { records } = change
  expect(records.need('topic', dwarf)).toMatchObject({ text: 'Dwarf', number: null, place: { map: head.place.map } })
  const note = records.need('topic', dwarf).note
  expect(note).not.toBe(garden.records.need('topic', topic('Dwarf')).note)
  expect(records.need('note', note).text).toBe('Small.')
  expect(records.weblinks(dwarf).map(({ title }) => title)).toEqual(['How'])
  expect(records.enclosuresOf(dwarf).map(({ title, topics }) => [title, topics])).toEqual([
    ['Beans', [dwarf, climbing]],
  ])
  expect(records.crosslinksFrom(dwarf).map(({ to }) => to.id)).toEqual([climbing])
  // The originals are as they were.
  expect(garden.records.crosslinksFrom(topic('Dwarf'))).toHaveLength(2)
})
