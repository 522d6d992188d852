import { expect, test } from 'vitest'
import { numberMap } from '../../../src/core/commands/numbering'
import { setDates } from '../../../src/core/commands/set-dates'
import { splitOff } from '../../../src/core/commands/split-off'
import { addWeblink } from '../../../src/core/commands/weblinks'
import { writeNote } from '../../../src/core/commands/write-note'
import { type Filter, isEmpty, matches, type Trait } from '../../../src/core/tree/filter'
import { mapNumbers } from '../../../src/core/tree/map-numbers'
import { freeRank, rankAfter, rankAfterLast } from '../../../src/core/tree/rank'
import { Garden } from '../gardens'

function planted(): Garden {
  const garden = new Garden()
  garden.grow('Garden\nSpring\n  Sow peas\n  Prüfen\nSummer')
  const peas = garden.topic('Sow peas')
  garden.do((r, m) => writeNote(r, { topic: peas, base: '', text: 'Before the **first** of April.' }, m))
  garden.do((r, m) => addWeblink(r, { topic: garden.topic('Summer'), url: 'example.org', title: '' }, m))
  garden.do((r, m) => setDates(r, { topic: garden.topic('Prüfen'), dates: { start: '2026-03-01', end: null } }, m))
  return garden
}
const found = (garden: Garden, filter: Filter) =>
  [...garden.records.all('topic')].filter((topic) => matches(garden.records, topic, filter)).map(({ text }) => text)

test('topics match by all words in text and note, case and accents aside', () => {
  const garden = planted()
  expect(found(garden, { words: 'PEAS april', traits: [] })).toEqual(['Sow peas'])
  expect(found(garden, { words: 'prufen', traits: [] })).toEqual(['Prüfen'])
  expect(found(garden, { words: 'nothing like it', traits: [] })).toEqual([])
  expect(isEmpty({ words: '  ', traits: [] })).toBe(true)
})

test('and by what they carry', () => {
  const garden = planted()
  const having = (trait: Trait) => found(garden, { words: '', traits: [trait] })
  expect(having('note')).toEqual(['Sow peas'])
  expect(having('link')).toEqual(['Summer'])
  expect(having('date')).toEqual(['Prüfen'])
  expect(having('file')).toEqual([])
  garden.do((r, m) => splitOff(r, { topic: garden.topic('Spring') }, m))
  expect(having('doorway')).toEqual(['Spring'])
  expect(found(garden, { words: 'sow', traits: ['note', 'date'] })).toEqual([])
})

test('the numbers of a whole map are those that it shows', () => {
  const garden = planted()
  const { map } = garden.records.need('topic', garden.topic('Garden')).place
  garden.do((r, m) => numberMap(r, { map, scheme: 'decimal' }, m))
  const numbers = mapNumbers(garden.records, map)
  expect(['Spring', 'Sow peas', 'Prüfen', 'Summer', 'Garden'].map((text) => numbers.get(garden.topic(text)))).toEqual([
    '1',
    '1.1',
    '1.2',
    '2',
    undefined,
  ])
})

test('ranks are made between neighbours, trashed ones included, and never twice', () => {
  const garden = planted()
  const { records } = garden
  const spring = garden.topic('Spring')
  const [peas, other] = records.children(spring)
  records.put('topic', { ...other!, trashed: true })
  const between = rankAfter(records, spring, peas!.id)
  expect(between > peas!.place.rank && between < other!.place.rank).toBe(true)
  expect(rankAfter(records, spring, null) < peas!.place.rank).toBe(true)
  expect(freeRank(records, spring, other!.place.rank, 'new')).not.toBe(other!.place.rank)
  expect(freeRank(records, spring, other!.place.rank, other!.id)).toBe(other!.place.rank)
  expect(rankAfterLast([]) < rankAfterLast([{ rank: 'a5' }])).toBe(true)
})
