import { expect, test } from 'vitest'
import { addCrosslink } from '../../../src/core/commands/crosslinks'
import { demoteHeading, joinTopics, promoteToHeading, splitLines } from '../../../src/core/commands/regroup'
import { setText } from '../../../src/core/commands/set-text'
import { splitOff } from '../../../src/core/commands/split-off'
import { addWeblink } from '../../../src/core/commands/weblinks'
import { writeNote } from '../../../src/core/commands/write-note'
import { crosslinkProblems } from '../../../src/core/network/check-links'
import { COLLECTION, Garden, plot, refusal } from '../gardens'

test('joining topics leaves no link among them, and no two that say the same', () => {
  const garden = new Garden()
  garden.grow('Garden\nA\nB\nC\nD')
  const [a, b, c, d] = ['A', 'B', 'C', 'D'].map((text) => garden.topic(text)) as [never, never, never, never]
  for (const [from, id] of [
    [b, c],
    [a, d],
    [c, d],
  ] as const)
    garden.do((r, m) => addCrosslink(r, { from, to: { kind: 'topic', id }, drawn: 'line' }, m))
  garden.do((r, m) => joinTopics(r, { topics: [a, b, c] }, m))
  expect(garden.records.crosslinksFrom(a).map(({ to }) => to.id)).toEqual([d])
  expect(crosslinkProblems(garden.records, COLLECTION).brokenLinks).toEqual([])
  for (const link of garden.records.all('crosslink')) if (!link.trashed) expect([link.from, link.to.id]).toEqual([a, d])
})

test('a branch whose doorway leads to where the others stand cannot be joined into it', () => {
  const garden = new Garden()
  garden.grow('Garden\nBeds\n  North\n    Peas\n  South')
  garden.do((r, m) => splitOff(r, { topic: garden.topic('North') }, m))
  const [peas, beds] = [garden.topic('Peas'), garden.topic('Beds')]
  expect(() => joinTopics(garden.records, { topics: [peas, beds] }, garden.newIds)).toThrow('opens the map North')
})

test('a heading takes its siblings below it, and lets them go again', () => {
  const { garden, map } = plot()
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
  const { garden, map } = plot()
  const [spring, summer] = [garden.topic('Spring'), garden.topic('Summer')]
  garden.do((records, newIds) => writeNote(records, { topic: summer, base: '', text: 'Hot.' }, newIds))
  garden.do((records, newIds) => addWeblink(records, { topic: summer, url: 'example.org', title: 'Heat' }, newIds))
  garden.do((records, newIds) => joinTopics(records, { topics: [spring, summer] }, newIds))
  const joined = garden.records.need('topic', spring)
  expect(joined.text).toBe('Spring\nSummer')
  expect(garden.records.get('note', joined.note)?.text).toBe('Hot.')
  expect(garden.records.weblinks(spring).map(({ title }) => title)).toEqual(['Heat'])
  expect(garden.text(map)).toContain('  - Spring Summer\n    - Sow peas\n    - Prune\n    - Pick beans\n      - Dwarf')
})

test('lines become topics of their own, below the root or beside a topic', () => {
  const { garden, map } = plot()
  const peas = garden.topic('Sow peas')
  garden.do((records, newIds) => setText(records, { topic: peas, text: 'Sow peas\nSow beans\n\n Sow leek ' }, newIds))
  garden.do((records, newIds) => splitLines(records, { topic: peas }, newIds))
  expect(garden.text(map)).toContain('    - Sow peas\n    - Sow beans\n    - Sow leek\n    - Prune')
  expect(refusal(() => garden.do((r, m) => splitLines(r, { topic: peas }, m)))).toBe('This topic has one line only.')
})
