import { expect, test } from 'vitest'
import { addCrosslink } from '../../../src/core/commands/crosslinks'
import { joinTopics } from '../../../src/core/commands/regroup'
import { splitOff } from '../../../src/core/commands/split-off'
import { crosslinkProblems } from '../../../src/core/network/check-links'
import { COLLECTION, Garden } from '../gardens'

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
