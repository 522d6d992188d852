import { expect, test } from 'vitest'
import { addBadge } from '../../../src/core/commands/badges'
import { numberMap } from '../../../src/core/commands/numbering'
import { setDates } from '../../../src/core/commands/set-dates'
import { setTask } from '../../../src/core/commands/set-task'
import { splitOff } from '../../../src/core/commands/split-off'
import { tagNamed, tagTopics } from '../../../src/core/commands/tags'
import { addWeblink } from '../../../src/core/commands/weblinks'
import { writeNote } from '../../../src/core/commands/write-note'
import { MapLayouter } from '../../../src/core/layout/map-layout'
import { hangs } from '../../../src/core/records/place'
import { type Filter, isEmpty, keptBy, matches, NO_FILTER, type Trait } from '../../../src/core/tree/filter'
import { mapNumbers } from '../../../src/core/tree/map-numbers'
import { freeRank, rankAfterLast, ranksBehind } from '../../../src/core/tree/rank'
import { CONTEXT, Garden } from '../gardens'

function planted(): Garden {
  const garden = new Garden()
  garden.grow('Garden\nSpring\n  Sow peas\n  Prüfen\nSummer')
  const peas = garden.topic('Sow peas')
  garden.do((r, m) => writeNote(r, { topic: peas, base: '', text: 'Before the **first** of April.' }, m))
  garden.do((r, m) => addWeblink(r, { topic: garden.topic('Summer'), url: 'example.org', title: '' }, m))
  garden.do((r, m) => setDates(r, { topics: [garden.topic('Prüfen')], dates: { start: '2026-03-01', end: null } }, m))
  return garden
}
const found = (garden: Garden, filter: Partial<Filter>) =>
  [...garden.records.all('topic')]
    .filter((topic) => matches(garden.records, topic, { ...NO_FILTER, ...filter }))
    .map(({ text }) => text)
    .sort()

test('topics match by all words in text and note, case and accents aside', () => {
  const garden = planted()
  expect(found(garden, { words: 'PEAS april', traits: [] })).toEqual(['Sow peas'])
  expect(found(garden, { words: 'prufen', traits: [] })).toEqual(['Prüfen'])
  expect(found(garden, { words: 'nothing like it', traits: [] })).toEqual([])
  expect(isEmpty({ ...NO_FILTER, words: '  ' })).toBe(true)
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

test('by tags, badges, the state of a task, and days that their dates touch', () => {
  const garden = planted()
  const [peas, summer] = [garden.topic('Sow peas'), garden.topic('Summer')]
  garden.do((r, m) => tagTopics(r, { topics: [peas, summer], name: 'Wet ' }, m))
  garden.do((r, m) => tagTopics(r, { topics: [peas], name: 'early' }, m))
  garden.do((r, m) => addBadge(r, { topics: [summer], badge: 'icon:sun' }, m))
  garden.do((r, m) => setTask(r, { topics: [summer], task: 'begun', today: '2026-05-04' }, m))
  garden.do((r, m) => setDates(r, { topics: [summer], dates: { start: '2026-06-01', end: '2026-08-31' } }, m))
  const tag = (name: string) => tagNamed(garden.records, name)!.id
  expect(found(garden, { tags: [tag('WET')] })).toEqual(['Sow peas', 'Summer'])
  expect(found(garden, { tags: [tag('wet'), tag('early')] })).toEqual(['Sow peas'])
  expect(found(garden, { badges: ['icon:sun'] })).toEqual(['Summer'])
  expect(found(garden, { tasks: ['open', 'begun'] })).toEqual(['Summer'])
  expect(found(garden, { tasks: ['done'] })).toEqual([])
  expect(found(garden, { from: '2026-08-01', until: '2026-12-31' })).toEqual(['Summer'])
  expect(found(garden, { until: '2026-05-31' })).toEqual(['Prüfen'])
})

test('what a view keeps that shows only what matches has a way to the root', () => {
  const garden = planted()
  const all = [...garden.records.all('topic')]
  const kept = keptBy(garden.records, all, { ...NO_FILTER, words: 'peas', alone: true })
  const texts = all.filter(({ id }) => kept.has(id)).map(({ text }) => text)
  expect(texts).toEqual(['Garden', 'Spring', 'Sow peas'])
  const { map } = garden.records.need('topic', garden.topic('Garden')).place
  const { boxes } = new MapLayouter(garden.records, map, CONTEXT, (topic) => kept.has(topic.id)).layout(null)
  expect(boxes.map(({ topic }) => topic.text)).toEqual(['Garden', 'Spring', 'Sow peas'])
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
  const rank = (topic = peas!) => (hangs(topic.place) ? topic.place.rank : '')
  records.put('topic', { ...other!, trashed: true })
  const [between] = ranksBehind(records, spring, peas!.id, 1)
  expect(between! > rank() && between! < rank(other)).toBe(true)
  expect(ranksBehind(records, spring, null, 1)[0]! < rank()).toBe(true)
  expect(ranksBehind(records, spring, 'last', 2).every((last) => last > rank(other))).toBe(true)
  expect(ranksBehind(records, spring, peas!.id, 1, new Set([other!.id]))[0]! > rank()).toBe(true)
  expect(freeRank(records, spring, rank(other), 'new')).not.toBe(rank(other))
  expect(freeRank(records, spring, rank(other), other!.id)).toBe(rank(other))
  expect(rankAfterLast([]) < rankAfterLast([{ rank: 'a5' }])).toBe(true)
})
