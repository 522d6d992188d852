import { describe, expect, test } from 'vitest'
import { duplicateBranches } from '../../../src/core/commands/duplicate-branches'
import { changeEnclosure, encloseTopics, removeEnclosure } from '../../../src/core/commands/enclosures'
import { foldAllBut, foldToLevel } from '../../../src/core/commands/fold-topics'
import { setBranchLayout, setMapLayout } from '../../../src/core/commands/layouts'
import { moveTopics } from '../../../src/core/commands/move-topics'
import { arrangeAgain, arrangeMap, detachTopics, placeByHand } from '../../../src/core/commands/places'
import { demoteHeading, joinTopics, promoteToHeading, splitLines } from '../../../src/core/commands/regroup'
import { setDates } from '../../../src/core/commands/set-dates'
import { setText } from '../../../src/core/commands/set-text'
import { type SortBy, sortChildren } from '../../../src/core/commands/sort-children'
import { addWeblink } from '../../../src/core/commands/weblinks'
import { writeNote } from '../../../src/core/commands/write-note'
import type { MapId } from '../../../src/core/records/ids'
import { sideOf } from '../../../src/core/records/place'
import { Garden } from '../gardens'

function planted(): { garden: Garden; map: MapId } {
  const garden = new Garden()
  return { garden, map: garden.grow('Garden\nSpring\n  Sow peas\n  Prune\nSummer\n  Pick beans\n    Dwarf\nAutumn') }
}
const refusal = (act: () => unknown): string => {
  try {
    act()
  } catch (error) {
    return error instanceof Error ? error.message : String(error)
  }
  return ''
}

describe('putting things into another order', () => {
  test('a heading takes its siblings below it, and lets them go again', () => {
    const { garden, map } = planted()
    const peas = garden.topic('Sow peas')
    garden.do((records, newIds) => promoteToHeading(records, { topic: peas }, newIds))
    expect(garden.text(map)).toContain('  - Spring\n    - Sow peas\n      - Prune\n')
    garden.do((records, newIds) => demoteHeading(records, { topic: peas }, newIds))
    expect(garden.text(map)).toContain('  - Spring\n    - Sow peas\n    - Prune\n')
    expect(refusal(() => garden.do((r, m) => promoteToHeading(r, { topic: garden.topic('Pick beans') }, m)))).toBe(
      'This topic has no siblings beside it.',
    )
  })

  test('joined topics keep their words, notes, links and what hangs below', () => {
    const { garden, map } = planted()
    const [spring, summer] = [garden.topic('Spring'), garden.topic('Summer')]
    garden.do((records, newIds) => writeNote(records, { topic: summer, base: '', text: 'Hot.' }, newIds))
    garden.do((records, newIds) => addWeblink(records, { topic: summer, url: 'example.org', title: 'Heat' }, newIds))
    garden.do((records, newIds) => joinTopics(records, { topics: [spring, summer] }, newIds))
    const joined = garden.records.need('topic', spring)
    expect(joined.text).toBe('Spring\nSummer')
    expect(garden.records.get('note', joined.note)?.text).toBe('Hot.')
    expect(garden.records.weblinks(spring).map(({ title }) => title)).toEqual(['Heat'])
    expect(garden.text(map)).toContain(
      '  - Spring Summer\n    - Sow peas\n    - Prune\n    - Pick beans\n      - Dwarf',
    )
  })

  test('lines become topics of their own, below the root or beside a topic', () => {
    const { garden, map } = planted()
    const peas = garden.topic('Sow peas')
    garden.do((records, newIds) => setText(records, { topic: peas, text: 'Sow peas\nSow beans\n\n Sow leek ' }, newIds))
    garden.do((records, newIds) => splitLines(records, { topic: peas }, newIds))
    expect(garden.text(map)).toContain('    - Sow peas\n    - Sow beans\n    - Sow leek\n    - Prune')
    expect(refusal(() => garden.do((r, m) => splitLines(r, { topic: peas }, m)))).toBe('This topic has one line only.')
  })

  test.each<[SortBy, string[]]>([
    ['text', ['äpfel 3', 'Birnen 20', 'Birnen 100', 'Zwiebeln']],
    ['number', ['äpfel 3', 'Birnen 20', 'Birnen 100', 'Zwiebeln']],
    ['date', ['Zwiebeln', 'Birnen 20', 'Birnen 100', 'äpfel 3']],
  ])('sorted by %s', (by, expected) => {
    const garden = new Garden()
    garden.grow('Harvest\nBirnen 20\nBirnen 100\nZwiebeln\näpfel 3')
    const date = (text: string, start: string) =>
      garden.do((r, m) => setDates(r, { topic: garden.topic(text), dates: { start, end: null } }, m))
    date('Zwiebeln', '2026-03-01')
    date('Birnen 20', '2026-09-01')
    const root = garden.topic('Harvest')
    garden.do((records, newIds) => sortChildren(records, { topic: root, by }, newIds))
    expect(garden.records.children(root).map(({ text }) => text)).toEqual(expected)
  })

  test('copies stand behind their originals or on another map, with notes and links of their own', () => {
    const { garden, map } = planted()
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
})

describe('places by hand and loose branches', () => {
  test('a topic keeps its place until it is arranged again, or hung onto its parent', () => {
    const { garden, map } = planted()
    const peas = garden.topic('Sow peas')
    const place = () => garden.records.need('topic', peas).place
    const byHand = () =>
      garden.do((records, newIds) =>
        placeByHand(records, { topic: peas, at: { x: 300, y: -80 }, side: 'right' }, newIds),
      )
    byHand()
    expect(place()).toMatchObject({ x: 300, y: -80, parent: garden.topic('Spring') })
    garden.do((records, newIds) => arrangeAgain(records, { topics: [garden.topic('Spring')] }, newIds))
    expect(place().kind).toBe('arranged')
    byHand()
    garden.do((records, newIds) => arrangeMap(records, { map }, newIds))
    expect(place().kind).toBe('arranged')
    byHand()
    garden.do((records, newIds) =>
      moveTopics(records, { topics: [peas], parent: garden.topic('Spring'), after: 'last', side: null }, newIds),
    )
    expect(place().kind).toBe('arranged')
    expect(refusal(() => garden.do((r, m) => arrangeMap(r, { map }, m)))).toBe('Nothing here was placed by hand.')
  })

  test('a detached branch stands alone with all below it, and hangs on again', () => {
    const { garden, map } = planted()
    const beans = garden.topic('Pick beans')
    garden.do((records, newIds) => detachTopics(records, { topics: [{ topic: beans, at: { x: 500, y: 90 } }] }, newIds))
    expect(garden.records.looseBranches(map).map(({ text }) => text)).toEqual(['Pick beans'])
    expect(garden.records.children(beans).map(({ text }) => text)).toEqual(['Dwarf'])
    garden.do((records, newIds) =>
      moveTopics(records, { topics: [beans], parent: garden.topic('Spring'), after: 'last', side: null }, newIds),
    )
    expect(garden.records.looseBranches(map)).toEqual([])
    expect(
      refusal(() =>
        garden.do((r, m) => detachTopics(r, { topics: [{ topic: garden.topic('Garden'), at: { x: 0, y: 0 } }] }, m)),
      ),
    ).toBe('The root of a map stays in its middle.')
  })
})

describe('layouts of their own', () => {
  test('a branch set to both sides shares its children out; a map remembers its sides', () => {
    const { garden, map } = planted()
    const summer = garden.topic('Spring')
    garden.do((records, newIds) => setBranchLayout(records, { topics: [summer], layout: 'both' }, newIds))
    expect(garden.records.children(summer).map(sideOf)).toEqual(['right', 'left'])
    const sides = () => garden.records.children(garden.topic('Garden')).map(sideOf)
    const before = sides()
    garden.do((records, newIds) => setMapLayout(records, { map, layout: 'down' }, newIds))
    expect(garden.records.need('map', map).layout).toBe('down')
    garden.do((records, newIds) => setMapLayout(records, { map, layout: 'both' }, newIds))
    expect(sides()).toEqual(before)
  })
})

describe('folding', () => {
  const shown = (garden: Garden) =>
    [...garden.records.all('topic')].filter(({ folded }) => folded).map(({ text }) => text)

  test('to a level, to everything, and all but the way to a topic', () => {
    const { garden, map } = planted()
    garden.do((records, newIds) => foldToLevel(records, { map, level: 1 }, newIds))
    expect(shown(garden)).toEqual(['Spring', 'Summer', 'Pick beans'])
    garden.do((records, newIds) => foldToLevel(records, { map, level: null }, newIds))
    expect(shown(garden)).toEqual([])
    garden.do((records, newIds) => foldAllBut(records, { topic: garden.topic('Pick beans') }, newIds))
    expect(shown(garden)).toEqual(['Spring'])
  })
})

describe('enclosures', () => {
  test('hold a branch or neighbours with what stands between, inside one another but never crossing', () => {
    const { garden } = planted()
    const [spring, summer, autumn] = ['Spring', 'Summer', 'Autumn'].map((text) => garden.topic(text))
    const enclose = (topics: NonNullable<typeof spring>[], title = '') =>
      garden.do((records, newIds) => encloseTopics(records, { topics, title }, newIds))
    enclose([spring!, autumn!], ' Seasons ')
    const [seasons] = garden.records.enclosuresOf(summer!)
    expect(seasons).toMatchObject({ topics: [spring, summer, autumn], title: 'Seasons' })
    enclose([summer!, autumn!])
    expect(garden.records.enclosuresOf(summer!)).toHaveLength(2)
    expect(refusal(() => enclose([spring!, summer!]))).toBe('This enclosure would cross another one.')
    expect(refusal(() => enclose([spring!, garden.topic('Dwarf')]))).toContain('hang on the same topic')
    garden.do((records, newIds) =>
      changeEnclosure(
        records,
        { enclosure: seasons!.id, title: 'Year', note: 'All of it.', tone: 3, look: { line: 'dashed' } },
        newIds,
      ),
    )
    expect(garden.records.need('enclosure', seasons!.id)).toMatchObject({
      title: 'Year',
      note: 'All of it.',
      tone: 3,
      look: { line: 'dashed' },
    })
    garden.do((records, newIds) => removeEnclosure(records, { enclosure: seasons!.id }, newIds))
    expect(garden.records.enclosuresOf(spring!)).toEqual([])
  })
})
