import { expect, test } from 'vitest'
import { addCrosslink, drawCrosslinks } from '../../../src/core/commands/crosslinks'
import { trashMap } from '../../../src/core/commands/maps'
import { splitOff } from '../../../src/core/commands/split-off'
import { addWeblink } from '../../../src/core/commands/weblinks'
import { writeNote } from '../../../src/core/commands/write-note'
import { ledgerOf } from '../../../src/core/network/ledger'
import { shortestWay } from '../../../src/core/network/shortest-way'
import { english } from '../../../src/server/lexicon/lexicon'
import { Garden } from '../gardens'

function planted() {
  const garden = new Garden()
  const maps = [
    garden.grow('Garden\n\tBeds\n\t\tCompost heap\n\t\tSow broad beans\n\tTools'),
    garden.grow('Kitchen\n\tBake with broad beans\n\tScraps for the compost heap'),
  ]
  const link = (from: string, to: string, drawn: 'line' | 'quiet' = 'line') =>
    garden.do((r, ids) =>
      addCrosslink(r, { from: garden.topic(from), to: { kind: 'topic', id: garden.topic(to) }, drawn }, ids),
    )
  return { garden, maps, link }
}

test('the ledger tells of every link where it stands, and which lead nowhere any more', () => {
  const { garden, maps, link } = planted()
  link('Tools', 'Beds')
  link('Scraps for the compost heap', 'Compost heap', 'quiet')
  link('Tools', 'Bake with broad beans')
  garden.do((r, ids) => addWeblink(r, { topic: garden.topic('Tools'), url: 'https://example.org/', title: '' }, ids))
  garden.do((r, ids) =>
    writeNote(r, { topic: garden.topic('Tools'), base: '', text: 'Turn the compost heap with a fork.' }, ids),
  )
  const told = () => ledgerOf(garden.records, () => true, english())
  const rows = () => told().links.map(({ from, to, drawn, broken }) => `${from.text} → ${to?.text ?? broken} ${drawn}`)
  expect(rows()).toEqual([
    'Tools → Beds line',
    'Tools → Bake with broad beans line',
    'Scraps for the compost heap → Compost heap quiet',
  ])
  expect(told().weblinks.map(({ at, url }) => [at.text, url])).toEqual([['Tools', 'https://example.org/']])
  // What is linked is not told as named; a note's words are.
  expect(told().mentions.map(({ in: where, of, isInNote, said }) => [where.text, of.text, isInNote, said])).toEqual([
    ['Tools', 'Compost heap', true, 'Turn the compost heap with a fork'],
  ])
  const ids = told()
    .links.slice(0, 2)
    .map(({ id }) => id)
  garden.do((r, m) => drawCrosslinks(r, { crosslinks: ids, drawn: 'quiet' }, m))
  expect(told().links.map(({ drawn }) => drawn)).toEqual(['quiet', 'quiet', 'quiet'])
  garden.do((r, m) => trashMap(r, { map: maps[1]! }, m))
  expect(rows()).toEqual(['Tools → Beds quiet', 'Tools → What it leads to lies in the trash. quiet'])
})

test('of maps that are not open nothing is told, not even whether a link leads anywhere', () => {
  const { garden, maps, link } = planted()
  link('Tools', 'Bake with broad beans')
  garden.do((r, m) =>
    addCrosslink(r, { from: garden.topic('Beds'), to: { kind: 'map', id: maps[1]! }, drawn: 'quiet' }, m),
  )
  const told = () => ledgerOf(garden.records, (map) => map === maps[0], english())
  const { links, mentions } = told()
  expect(links).toMatchObject([
    { to: null, broken: null },
    { to: null, broken: null },
  ])
  // Nor whether it lies in the trash.
  garden.do((r, m) => trashMap(r, { map: maps[1]! }, m))
  expect(told().links).toEqual(links)
  expect(JSON.stringify({ links, mentions })).not.toMatch(/Bake|Scraps|Kitchen/)
})

test('the shortest way goes along branches, links and doorways, whichever is shorter', () => {
  const { garden, maps, link } = planted()
  const way = (from: string, to: string, isOpen?: (map: string) => boolean) =>
    shortestWay(garden.records, garden.topic(from), garden.topic(to), isOpen)?.map(
      ({ topic, by }) => `${by ?? ''} ${garden.records.need('topic', topic).text}`,
    )
  expect(way('Compost heap', 'Kitchen')).toBeUndefined()
  link('Scraps for the compost heap', 'Compost heap')
  expect(way('Sow broad beans', 'Kitchen')).toEqual([
    ' Sow broad beans',
    'branch Beds',
    'branch Compost heap',
    'crosslink Scraps for the compost heap',
    'branch Kitchen',
  ])
  expect(way('Sow broad beans', 'Kitchen', (map) => map === maps[0])).toBeUndefined()
  garden.do((r, m) => splitOff(r, { topic: garden.topic('Beds') }, m))
  expect(way('Tools', 'Sow broad beans')).toEqual([
    ' Tools',
    'branch Garden',
    'branch Beds',
    'doorway Beds',
    'branch Sow broad beans',
  ])
})

test('maps and branches that say much the same are told, the most first, and of nested ones only the best', () => {
  const garden = new Garden()
  garden.grow(
    'Dipwells\n\tReading\n\t\tRead every second Friday\n\t\tWrite the depth in the book\n\t\tClean the well cap\n\tTools of the warden',
  )
  garden.grow(
    'Volunteer rules\n\tWell readings\n\t\tReading every second Friday\n\t\tDepth is written in the book\n\t\tCleaning of well caps\n\tParking places',
  )
  const { overlaps, close } = ledgerOf(garden.records, () => true, english())
  expect(overlaps.map(({ a, b, said, of }) => [a.text, b.text, said, of])).toEqual([['Reading', 'Well readings', 3, 4]])
  expect(close.map(({ a, b }) => [a.text, b.text])).toContainEqual(['Clean the well cap', 'Cleaning of well caps'])
})
