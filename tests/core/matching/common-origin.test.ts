import { expect, test } from 'vitest'
import { duplicateMap } from '../../../src/core/commands/copy-map'
import { deleteTopics } from '../../../src/core/commands/delete-topics'
import { mergeMaps } from '../../../src/core/commands/merge-maps'
import { setDates } from '../../../src/core/commands/set-dates'
import { setText } from '../../../src/core/commands/set-text'
import { writeNote } from '../../../src/core/commands/write-note'
import { mergeReportPage } from '../../../src/core/formats/merge-report'
import { Lexicon } from '../../../src/core/matching/lexicon'
import { planMerge } from '../../../src/core/matching/merge-plan'
import type { MapId, TopicId } from '../../../src/core/records/ids'
import { Garden } from '../gardens'

const START = 'Wells\nReading\n  By hand\n  By logger\nThrough ice\nWinter\n  Frost days\nRepairs\n  Collars'

/** A map and a copy of it, to be changed apart. */
function apart() {
  const garden = new Garden()
  const mine = garden.grow(START)
  const peaty = named(garden, mine, 'Reading')
  garden.do((r, m) => writeNote(r, { topic: peaty, base: '', text: 'Once a fortnight.' }, m))
  const { select } = garden.do((r, m) => duplicateMap(r, { map: mine, withChildren: false }, m))
  const theirs = garden.records.need('topic', select[0]!).place.map
  const write = (topic: TopicId, text: string) => garden.do((r, m) => setText(r, { topic, text }, m))
  const plan = (said: [TopicId, TopicId | null][] = []) =>
    planMerge(garden.records, mine, [theirs], 'combined', { lexicon: Lexicon.EMPTY, said: new Map(said) })
  return { garden, mine, theirs, write, plan }
}

const lines = (garden: Garden, map: MapId) => garden.text(map).replace(/^( {2})?( *)- /gm, '$2')

const named = (garden: Garden, map: MapId, text: string) =>
  [...garden.records.topicsOf(map)].find((topic) => topic.text === text && !topic.trashed)!.id

test('a copy that nobody changed adds nothing, and asks nothing', () => {
  const { garden, mine, plan } = apart()
  expect(plan().decisions.map(({ act }) => act)).toEqual(Array(9).fill('join'))
  const { report } = garden.do((r, m) => mergeMaps(r, { plan: plan() }, m))
  expect(lines(garden, mine)).toBe(START)
  expect(report.counts).toMatchObject({ added: 0, notesAdded: 0, notesCombined: 0 })
  expect(report.rows.flatMap(({ conflicts }) => conflicts)).toEqual([])
})

test('what only one side has changed is taken from there, and what both changed is told', () => {
  const { garden, mine, theirs, write, plan } = apart()
  const at = (map: MapId, text: string) => named(garden, map, text)
  // Reworded beyond recognition there; here; on both sides.
  write(at(theirs, 'By hand'), 'With a plopper')
  write(at(mine, 'Through ice'), 'When it freezes')
  write(at(theirs, 'Collars'), 'Collars and caps')
  write(at(mine, 'Collars'), 'Rings')
  const reading = at(theirs, 'Reading')
  garden.do((r, m) => writeNote(r, { topic: reading, base: 'Once a fortnight.', text: 'Once a week.' }, m))
  const winter = at(theirs, 'Winter')
  garden.do((r, m) => setDates(r, { topics: [winter], dates: { start: '2026-12-01', end: null } }, m))
  const { report } = garden.do((r, m) => mergeMaps(r, { plan: plan() }, m))
  expect(lines(garden, mine)).toBe(
    'Wells\nReading\n  With a plopper\n  By logger\nWhen it freezes\nWinter\n  Frost days\nRepairs\n  Rings',
  )
  const { note } = garden.records.need('topic', at(mine, 'Reading'))
  expect(garden.records.need('note', note).text).toBe('Once a week.')
  expect(garden.records.need('topic', at(mine, 'Winter')).dates?.start).toBe('2026-12-01')
  expect(report.rows.filter(({ conflicts }) => conflicts.length > 0).map(({ text }) => text)).toEqual([
    'Collars and caps',
  ])
  expect(report.rows.find(({ text }) => text === 'With a plopper')!.why).toBe(
    'one is a copy of the other; changed only there: text',
  )
})

test('what was taken out here stays away, unless something was changed there or a person wants it', () => {
  const { garden, mine, theirs, write, plan } = apart()
  const gone = ['Winter', 'Repairs', 'Through ice'].map((text) => named(garden, mine, text))
  garden.do((r, m) => deleteTopics(r, { topics: gone }, m))
  write(named(garden, theirs, 'Collars'), 'Collars and caps')
  const ice = named(garden, theirs, 'Through ice')
  expect(plan().decisions.filter(({ act }) => act === 'leave')).toHaveLength(3)
  const { report } = garden.do((r, m) => mergeMaps(r, { plan: plan([[ice, null]]) }, m))
  expect(lines(garden, mine)).toBe('Wells\nReading\n  By hand\n  By logger\nThrough ice\nRepairs\n  Collars and caps')
  expect(mergeReportPage(report, 'Merged')).toContain('## Left out')
})
