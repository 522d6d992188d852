import fc from 'fast-check'
import { expect, test } from 'vitest'
import { addTopic } from '../../../src/core/commands/add-topic'
import { bringAgain, differencesIn } from '../../../src/core/commands/bring-again'
import { deleteTopics } from '../../../src/core/commands/delete-topics'
import { importPages } from '../../../src/core/commands/import-pages'
import { setText } from '../../../src/core/commands/set-text'
import { writeNote } from '../../../src/core/commands/write-note'
import type { Page } from '../../../src/core/formats/page-file'
import { COLLECTION, Garden, refusal } from '../gardens'

const WATER = `# Water

What we know of [the gate](gate.md#hinges).

## Dams

Boards first.

- Peat dams
  - Two spades wide
- Steel dams

## Ditches

- Number one
- [Gate](gate.md)
`
const GATE = '# Gate\n\n- Hinges\n'

function imported(pages: readonly Page[]) {
  const garden = new Garden()
  const { maps } = garden.do((r, m) => importPages(r, { collection: COLLECTION, pages, files: new Map() }, m))
  const note = (text: string) =>
    garden.records.get('note', garden.records.need('topic', garden.topic(text)).note)?.text ?? ''
  const again = (coming: readonly Page[]) =>
    garden.do((r, m) => bringAgain(r, { collection: COLLECTION, pages: coming, files: new Map(), gone: [] }, m))
  return { garden, map: maps[0]!, note, again }
}
const both = [
  { path: 'water.md', text: WATER },
  { path: 'gate.md', text: GATE },
]

test('what was done at the source is done here, to the same topics, and what was done here stays', () => {
  const { garden, map, note, again } = imported(both)
  const { topic, records } = garden
  const [dams, ditches] = [garden.topic('Dams'), garden.topic('Ditches')]
  garden.do((r, m) => addTopic(r, { parent: garden.topic('Steel dams'), after: 'last', text: 'Ours' }, m))
  garden.do((r, m) => setText(r, { topic: garden.topic('Number one'), text: 'Number one, by the road' }, m))
  garden.do((r, m) => writeNote(r, { topic: dams, base: 'Boards first.', text: 'Boards first.\n\nAsk Ada.' }, m))
  const coming = WATER.replace('## Dams', '## Dams and weirs')
    .replace('Boards first.', 'Boards first, then peat.')
    .replace('- Peat dams\n  - Two spades wide\n- Steel dams\n', '- Steel dams\n- Weirs\n\n  New in May.\n')
    .replace('- Number one', '- Number 1\n- Peat dams')
    .replace('# Water', '# Waters')
  const pages = [{ path: 'water.md', text: coming }, both[1]!]
  const told = differencesIn(records, pages, garden.newIds)
  const { differences } = again(pages)
  expect(told.find(({ path }) => path === 'water.md')).toEqual(differences[0])
  expect(told.find(({ path }) => path === 'gate.md')).toMatchObject({ state: 'same' })
  expect(differences[0]).toEqual({
    path: 'water.md',
    map,
    title: 'Water',
    state: 'changed',
    added: ['Weirs'],
    removed: ['Two spades wide'],
    moved: ['Peat dams'],
    reworded: [
      { from: 'Water', to: 'Waters' },
      { from: 'Dams', to: 'Dams and weirs' },
    ],
    noted: ['Dams and weirs'],
    both: ['Number one, by the road', 'Dams and weirs'],
  })
  expect([garden.topic('Dams and weirs'), garden.topic('Ditches')]).toEqual([dams, ditches])
  expect(note('Dams and weirs')).toContain('Ask Ada.')
  expect(note('Dams and weirs')).toContain('Boards first, then peat.')
  expect(note('Weirs')).toBe('New in May.')
  expect(
    garden
      .text(map)
      .trim()
      .replaceAll(/^(\s*)- /gm, '$1')
      .split('\n'),
  ).toEqual([
    'Waters',
    '  Dams and weirs',
    '    Steel dams',
    '      Ours',
    '    Weirs',
    '  Ditches',
    '    Number one, by the road',
    '    Peat dams',
    '    Gate',
  ])
  expect(records.need('map', map).title).toBe('Waters')
  // Links in notes lead where they led, and the doorway opens the same map.
  expect(note('Waters')).toContain(`folvet:topic/${topic.call(garden, 'Hinges')}`)
  expect(refusal(() => again(pages))).toContain('Nothing was changed')
})

test('a page that is new becomes a map that old ones lead to, and one that is gone leaves with its map', () => {
  const { garden, again } = imported(both)
  const weir = { path: 'weir.md', text: '# Weir\n\n- Planks\n' }
  const water = { path: 'water.md', text: `${WATER}- [Weir](weir.md)\n` }
  const { differences } = again([water, weir])
  expect(differences).toMatchObject([
    { path: 'water.md', added: ['Weir'] },
    { path: 'weir.md', state: 'new', added: ['Planks'], map: null },
  ])
  const doorway = [...garden.records.all('topic')].find(
    ({ text, place }) => text === 'Weir' && place.kind === 'arranged',
  )!
  expect(garden.records.need('map', doorway.opensMap!).title).toBe('Weir')
  expect(garden.records.need('map', doorway.opensMap!).homeDoorway).toBe(doorway.id)
  const gate = [...garden.records.all('map')].find(({ title }) => title === 'Gate')!
  garden.do((r, m) => bringAgain(r, { collection: COLLECTION, pages: [water], files: new Map(), gone: [gate.id] }, m))
  expect(garden.records.need('map', gate.id).trashed).toBe(true)
})

test('what was taken away here stays away, and what somebody hung below a topic that is gone keeps it', () => {
  const { garden, map, again } = imported(both)
  garden.do((r, m) => deleteTopics(r, { topics: [garden.topic('Steel dams')] }, m))
  garden.do((r, m) => addTopic(r, { parent: garden.topic('Peat dams'), after: 'last', text: 'Ours' }, m))
  garden.do((r, m) => setText(r, { topic: garden.topic('Number one'), text: 'Number one, by the road' }, m))
  const { differences } = again([
    { path: 'water.md', text: WATER.replace('- Peat dams\n  - Two spades wide\n', '').replace('- Number one\n', '') },
  ])
  expect(differences[0]).toMatchObject({
    removed: ['Two spades wide'],
    both: ['Peat dams', 'Number one, by the road'],
  })
  expect(garden.text(map)).not.toContain('Steel dams')
  expect(garden.text(map)).toContain('Ours')
})

test('pages of any shape come to say what they say at the source, where nothing was done here', () => {
  const line = fc.record({ level: fc.nat(4), text: fc.constantFrom('Pools', 'Peat', 'Moss', 'Larks', 'Wells', 'Mill') })
  const page = fc.array(line, { minLength: 1, maxLength: 14 }).map((lines) => {
    let before = -1
    return lines.map(({ level, text }) => {
      before = Math.min(level, before + 1)
      return `${'  '.repeat(before)}- ${text}`
    })
  })
  const text = (lines: readonly string[]) => `# Bog\n\n${lines.join('\n')}\n`
  fc.assert(
    fc.property(page, page, (before, after) => {
      fc.pre(text(before) !== text(after))
      const { garden, map, again } = imported([{ path: 'bog.md', text: text(before) }])
      again([{ path: 'bog.md', text: text(after) }])
      const fresh = imported([{ path: 'bog.md', text: text(after) }])
      expect(garden.text(map)).toBe(fresh.garden.text(fresh.map))
      // And once more is nothing.
      expect(refusal(() => again([{ path: 'bog.md', text: text(after) }]))).toContain('Nothing was changed')
    }),
    { numRuns: 60 },
  )
})
