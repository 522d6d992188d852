import { expect, test } from 'vitest'
import { addCrosslink } from '../../../src/core/commands/crosslinks'
import { mergeMaps } from '../../../src/core/commands/merge-maps'
import { setDates } from '../../../src/core/commands/set-dates'
import { setTask } from '../../../src/core/commands/set-task'
import { splitOff } from '../../../src/core/commands/split-off'
import { writeNote } from '../../../src/core/commands/write-note'
import { mergeReportCsv, mergeReportPage } from '../../../src/core/formats/merge-report'
import { AS_IT_IS, type MergePlan } from '../../../src/core/matching/decisions'
import { Lexicon } from '../../../src/core/matching/lexicon'
import { planMerge } from '../../../src/core/matching/merge-plan'
import type { MapId, TopicId } from '../../../src/core/records/ids'
import { Garden } from '../gardens'

test('two sources that join the same topic with different notes bring each passage once', () => {
  const garden = new Garden()
  const maps = ['Garden', 'First', 'Second'].map((title) => garden.grow(`${title}\nPeas`)) as [MapId, MapId, MapId]
  const peas = maps.map((map) => [...garden.records.topicsOf(map)].find(({ text }) => text === 'Peas')!.id)
  for (const [i, text] of ['Ours.', 'Of the first.', 'Of the second.'].entries())
    garden.do((r, m) => writeNote(r, { topic: peas[i]!, base: '', text }, m))
  const [target, ...sources] = maps
  const { report } = garden.do((r, m) => mergeMaps(r, { plan: planMerge(r, target, sources, 'combined') }, m))
  const { text } = garden.records.need('note', garden.records.need('topic', peas[0]!).note)
  expect(text).toBe('Ours.\n\n*From First:*\n\nOf the first.\n\n*From Second:*\n\nOf the second.')
  expect(report.counts.notesCombined).toBe(2)
})

test('many topics that are added below one keep their order', () => {
  const garden = new Garden()
  const target = garden.grow('Garden\nOld')
  const lines = Array.from({ length: 300 }, (_, i) => `t${i}`)
  const source = garden.grow(`Other\n${lines.join('\n')}`)
  garden.do((r, m) => mergeMaps(r, { plan: planMerge(r, target, [source], 'combined') }, m))
  const children = garden.records.children(garden.records.root(target)!.id).map(({ text }) => text)
  expect(children).toEqual(['Old', ...lines])
})

function wells() {
  const garden = new Garden()
  const target = garden.grow('Wells\nThe network\n  Well 23\nReading')
  const source = garden.grow('Notes on wells\nThe network\n  Well 31\nReading\n  Through ice')
  const elsewhere = garden.grow('Season\nWinter')
  const named = (map: MapId, text: string) => [...garden.records.topicsOf(map)].find((each) => each.text === text)!.id
  const merge = (change: (plan: MergePlan) => MergePlan = (plan) => plan) =>
    garden.do((r, m) => mergeMaps(r, { plan: change(planMerge(r, target, [source], 'combined')) }, m)).report
  return { garden, target, source, elsewhere, named, merge }
}

test('of what both say in their own way one is chosen, and what only one says is kept', () => {
  const { garden, target, source, named, merge } = wells()
  const [own, other] = [named(target, 'Reading'), named(source, 'Reading')]
  const dates = (topic: TopicId, start: string) =>
    garden.do((r, m) => setDates(r, { topics: [topic], dates: { start, end: null } }, m))
  dates(own, '2026-03-01')
  dates(other, '2026-04-01')
  dates(named(source, 'The network'), '2026-05-01')
  garden.do((r, m) => setTask(r, { topics: [other], task: 'open', today: '2026-05-04' }, m))
  const choices = new Map([[other, { takes: ['dates' as const], text: 'Reading them' }]])
  const plan = planMerge(garden.records, target, [source], 'combined', {
    lexicon: Lexicon.EMPTY,
    said: new Map(),
    choices,
  })
  const report = merge(() => plan)
  expect(garden.records.need('topic', own)).toMatchObject({
    text: 'Reading them',
    dates: { start: '2026-04-01' },
    task: 'open',
  })
  expect(garden.records.need('topic', named(target, 'The network')).dates?.start).toBe('2026-05-01')
  expect(report.rows.find(({ text }) => text === 'Reading')).toMatchObject({ conflicts: ['dates'], taken: ['dates'] })
})

test('a new map can come of it, and then all that was there stays as it is', () => {
  const { garden, target, source, merge } = wells()
  const [before, others] = [garden.text(target), garden.text(source)]
  const { result } = merge((plan) => ({ ...plan, manner: { ...AS_IT_IS, title: 'All wells', isNew: true } }))
  expect(garden.text(target)).toBe(before)
  expect(garden.text(source)).toBe(others)
  expect(garden.text(result)).toBe(
    '- All wells\n  - The network\n    - Well 23\n    - Well 31\n  - Reading\n    - Through ice',
  )
})

test('only a branch of a map is taken over', () => {
  const { garden, target, source, named } = wells()
  const parts = [[source, named(source, 'The network')] as const]
  const knowledge = { lexicon: Lexicon.EMPTY, said: new Map(), parts }
  const plan = planMerge(garden.records, target, [source], 'beside', knowledge)
  garden.do((r, m) => mergeMaps(r, { plan }, m))
  expect(garden.text(target)).toContain('  - The network\n    - Well 31')
  expect(garden.text(target)).not.toContain('Through ice')
})

test('sources that go into the trash leave nothing that leads nowhere', () => {
  const { garden, target, source, elsewhere, named, merge } = wells()
  const winter = named(elsewhere, 'Winter')
  garden.do((r, m) =>
    addCrosslink(r, { from: winter, to: { kind: 'topic', id: named(source, 'Well 31') }, drawn: 'quiet' }, m),
  )
  garden.do((r, m) => addCrosslink(r, { from: winter, to: { kind: 'map', id: source }, drawn: 'quiet' }, m))
  const child = garden.do((r, m) => splitOff(r, { topic: named(source, 'Reading') }, m)).select[0]!
  const behind = garden.records.need('topic', child).opensMap!
  const report = merge((plan) => ({ ...plan, manner: { ...AS_IT_IS, sourcesThen: 'trash' } }))
  expect(garden.records.need('map', source).trashed).toBe(true)
  const ends = garden.records.crosslinksFrom(winter).map(({ to }) => to)
  expect(ends).toContainEqual({ kind: 'topic', id: named(target, 'Well 31') })
  expect(ends).toContainEqual({ kind: 'map', id: target })
  // What was reached through the source is reached through the result.
  expect(garden.records.need('map', behind).homeDoorway).toBe(named(target, 'Reading'))
  expect(report.counts.led).toBe(2)
})

test('a source can stay as a doorway to the result', () => {
  const { garden, target, source, merge } = wells()
  merge((plan) => ({ ...plan, manner: { ...AS_IT_IS, sourcesThen: 'doorway' } }))
  expect(garden.text(source)).toBe('- Notes on wells')
  expect(garden.records.root(source)!.opensMap).toBe(target)
  expect(garden.text(target)).toContain('Well 31')
})

test('the report tells every decision, as a table and as a page', () => {
  const { garden, source, named, merge } = wells()
  garden.do((r, m) =>
    addCrosslink(r, { from: named(source, 'Well 31'), to: { kind: 'map', id: source }, drawn: 'quiet' }, m),
  )
  const report = merge()
  expect(mergeReportCsv(report).split('\r\n').slice(0, 3)).toEqual([
    '"Topic","From","What happened","At","Sure","Why","Said by both in another way","Taken from the source"',
    '"Notes on wells","Notes on wells","joined with","Wells","100 %","what the maps are of","text",""',
    expect.stringMatching(/^"The network","Notes on wells","joined with","The network","\d+ %",/),
  ])
  const page = mergeReportPage(report, 'Notes on wells into Wells')
  expect(page).toContain('# Notes on wells into Wells\n')
  expect(page).toContain('- **Well 31** of Notes on wells, below The network')
})
