import { expect, test } from 'vitest'
import { addCrosslink } from '../../../src/core/commands/crosslinks'
import { deleteTopics } from '../../../src/core/commands/delete-topics'
import { trashMap } from '../../../src/core/commands/maps'
import { splitOff } from '../../../src/core/commands/split-off'
import { crosslinkProblems } from '../../../src/core/network/check-links'
import { crosslinkIsQuiet } from '../../../src/core/network/crosslinks'
import { COLLECTION, Garden } from '../gardens'

test('a collection in which everything leads somewhere has no problems', () => {
  const garden = new Garden()
  garden.grow('Garden\nSpring\n  Sow peas')
  garden.do((r, m) => splitOff(r, { topic: garden.topic('Spring') }, m))
  expect(crosslinkProblems(garden.records, COLLECTION)).toEqual({ brokenLinks: [], unreachableMaps: [] })
})

test('maps that no doorway and no link leads to are told', () => {
  const garden = new Garden()
  garden.grow('Garden\nSpring')
  const island = garden.grow('Island\nPalm')
  expect(crosslinkProblems(garden.records, COLLECTION).unreachableMaps).toEqual([{ id: island, title: 'Island' }])
  garden.do((r, m) =>
    addCrosslink(
      r,
      { from: garden.topic('Palm'), to: { kind: 'topic', id: garden.topic('Spring') }, drawn: 'quiet' },
      m,
    ),
  )
  expect(crosslinkProblems(garden.records, COLLECTION).unreachableMaps).toEqual([])
})

test('links and doorways into the trash are broken, with the reason', () => {
  const garden = new Garden()
  garden.grow('Garden\nSpring\n  Sow peas\nSummer\n  Pick\nAutumn')
  garden.do((r, m) =>
    addCrosslink(
      r,
      { from: garden.topic('Spring'), to: { kind: 'topic', id: garden.topic('Pick') }, drawn: 'quiet' },
      m,
    ),
  )
  garden.do((r, m) => deleteTopics(r, { topics: [garden.topic('Summer')] }, m))
  expect(crosslinkProblems(garden.records, COLLECTION).brokenLinks.map(({ text, reason }) => [text, reason])).toEqual([
    ['Spring', 'It is linked with something in the trash.'],
  ])
  const spring = garden.topic('Spring')
  garden.do((r, m) => splitOff(r, { topic: spring }, m))
  garden.do((r, m) => trashMap(r, { map: garden.records.need('topic', spring).opensMap! }, m))
  expect(crosslinkProblems(garden.records, COLLECTION).brokenLinks.map(({ reason }) => reason)).toContain(
    'It opens a map that lies in the trash.',
  )
})

test('a link to another map is quiet, however it was to be drawn', () => {
  const garden = new Garden()
  garden.grow('Garden\nSpring')
  garden.grow('Field\nHay')
  const link = (to: string) => {
    garden.do((r, m) =>
      addCrosslink(r, { from: garden.topic('Garden'), to: { kind: 'topic', id: garden.topic(to) }, drawn: 'line' }, m),
    )
    return garden.records.crosslinksTo('topic', garden.topic(to))[0]!
  }
  expect(crosslinkIsQuiet(garden.records, link('Spring'))).toBe(false)
  expect(crosslinkIsQuiet(garden.records, link('Hay'))).toBe(true)
})
