import { readFileSync } from 'node:fs'
import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { bringBack } from '../../../src/core/commands/bring-back'
import { addCrosslink } from '../../../src/core/commands/crosslinks'
import { foldTopics } from '../../../src/core/commands/fold-topics'
import { importPages } from '../../../src/core/commands/import-pages'
import { splitOffAll } from '../../../src/core/commands/split-off'
import { crowdingOf, crowdingWords } from '../../../src/core/crowding/crowding'
import { divideTied } from '../../../src/core/crowding/divide-tied'
import { Division } from '../../../src/core/crowding/division'
import { BEARABLE } from '../../../src/core/crowding/piece-cost'
import { mapName, proposeSplit, splitEffect } from '../../../src/core/crowding/propose-split'
import { type TopicTree, topicTreeOf } from '../../../src/core/crowding/topic-tree'
import { READABLE_PX } from '../../../src/core/layout/view'
import type { MapId } from '../../../src/core/records/ids'
import { COLLECTION, CONTEXT, Garden, refusal } from '../gardens'

/** A page as the one map that it is imported as. */
function pageOf(path: string): { garden: Garden; map: MapId } {
  const garden = new Garden()
  const pages = [{ path: path.split('/').at(-1)!, text: readFileSync(path, 'utf8') }]
  const { maps } = garden.do((r, ids) => importPages(r, { collection: COLLECTION, pages, files: new Map() }, ids))
  return { garden, map: maps[0]! }
}

const propose = ({ garden, map }: { garden: Garden; map: MapId }) =>
  proposeSplit(garden.records, map, CONTEXT, garden.newIds)
const effect = ({ garden, map }: { garden: Garden; map: MapId }, parts: ReturnType<typeof propose>) =>
  splitEffect(garden.records, map, parts, CONTEXT, garden.newIds)

const beds = (rows: number, each: number) =>
  Array.from({ length: rows }, (_, row) => [
    `Bed ${row + 1}`,
    ...Array.from({ length: each }, (_, i) => `  Row ${row + 1}.${i + 1} with its plants`),
  ])
    .flat()
    .join('\n')

const DENSE = 'demo/vennmoor/maps/02-water-and-ditch-blocking.md'

test('a map that can be read is left as it is', () => {
  const garden = new Garden()
  expect(propose({ garden, map: garden.grow(`Garden\n${beds(3, 6)}`) })).toEqual([])
})

test('the dense map of the demo becomes four that can be read, under the names of their branches', () => {
  const page = pageOf(DENSE)
  const parts = propose(page)
  expect(parts.map(({ name }) => name)).toEqual(['How a raised bog holds water', 'Ditches', 'Dams and weirs'])
  const { maps } = effect(page, parts)
  for (const { px, topics } of maps) {
    expect(px).toBeGreaterThanOrEqual(READABLE_PX)
    expect(topics).toBeLessThanOrEqual(BEARABLE.limit)
  }
  const crowding = crowdingOf(page.garden.records, page.map, CONTEXT)
  expect(crowding.isCrowded).toBe(true)
  expect(crowdingWords(crowding)).toMatch(
    /^text falls to \d px when fitted; Dams and weirs causes 3\d % of it: 42 topics, four levels$/,
  )
})

test('what is folded counts as if it were not', () => {
  const garden = new Garden()
  const map = garden.grow(`Garden\n${beds(8, 12)}`)
  const before = crowdingOf(garden.records, map, CONTEXT)
  garden.do((r, ids) => foldTopics(r, { topics: [garden.topic('Bed 1'), garden.topic('Bed 2')], folded: true }, ids))
  expect(crowdingOf(garden.records, map, CONTEXT)).toEqual({ ...before, branches: expect.anything() })
})

test('a long list without branches becomes maps of neighbours', () => {
  const garden = new Garden()
  const map = garden.grow(`Plants\n${Array.from({ length: 300 }, (_, i) => `Plant ${i + 1}`).join('\n')}`)
  const parts = propose({ garden, map })
  const { maps } = effect({ garden, map }, parts)
  expect(parts[0]!.name).toBe('Plant 1 to Plant 37')
  expect(maps.map(({ topics }) => topics).sort((a, b) => b - a)[0]).toBeLessThanOrEqual(BEARABLE.limit)
  expect(maps.reduce((sum, { topics }) => sum + topics - 1, 0)).toBe(300 + parts.length)
})

test('a proposal that is taken and brought back leaves the map as it was', () => {
  fc.assert(
    fc.property(
      fc.array(fc.tuple(fc.nat(3), fc.nat(2)), { minLength: 20, maxLength: 90 }),
      fc.array(fc.tuple(fc.nat(89), fc.nat(89)), { maxLength: 6 }),
      (steps, links) => {
        const garden = new Garden()
        let depth = 0
        const lines = steps.map(([up], i) => {
          depth = Math.max(0, Math.min(depth + 1 - up, 6))
          return `${'  '.repeat(depth)}Topic ${i} ${'of the bed behind the shed '.repeat(i % 3)}`
        })
        const map = garden.grow(`Garden\n${lines.join('\n')}`)
        const topics = [...garden.records.topicsOf(map)].map(({ id }) => id)
        for (const [a, b] of links) {
          const [from, to] = [topics[a % topics.length]!, topics[b % topics.length]!]
          if (from !== to && refusal(() => addCrosslink(garden.records, linkBetween(from, to), garden.newIds)) === '')
            garden.do((r, ids) => addCrosslink(r, linkBetween(from, to), ids))
        }
        const before = garden.text(map)
        const parts = propose({ garden, map }).filter((part) => 'topic' in part)
        if (parts.length === 0) return
        const { maps, between } = effect({ garden, map }, parts)
        const { doorways } = garden.do((r, ids) => splitOffAll(r, { parts }, ids))
        expect(maps.slice(1).map(({ topics: count }) => count)).toEqual(
          doorways.map((id) => [...garden.records.topicsOf(garden.records.need('topic', id).opensMap!)].length),
        )
        expect(between).toBeLessThanOrEqual(links.length)
        for (const topic of doorways) garden.do((r, ids) => bringBack(r, { topic }, ids))
        expect(garden.text(map)).toBe(before)
      },
    ),
    { numRuns: 40 },
  )
})

const linkBetween = (from: never | string, to: string) =>
  ({ from, to: { kind: 'topic', id: to }, label: '', drawn: 'quiet' }) as never

test('names are short and tell maps apart', () => {
  expect(mapName('What the readers do:\nfirst')).toBe('What the readers do')
  expect(mapName(`${'very long '.repeat(20)}`).length).toBeLessThanOrEqual(62)
  expect(mapName('…')).toBe('Untitled')
})

describe('real documents', () => {
  const DOCUMENTS = [
    'diff',
    'enhanced-resolve',
    'expect-type',
    'glob',
    'minimatch',
    'oniguruma-to-es',
    'semver',
    'tapable',
    'undici',
    'yauzl',
  ].map((name) => `node_modules/${name}/README.md`)
  const DENSE_MAPS = ['bakery', 'festival', 'interviews', 'removal', 'soil'].map(
    (name) => `tests/core/crowding/dense/${name}.md`,
  )
  test.each([...DOCUMENTS, DENSE, ...DENSE_MAPS])('%s becomes maps that can be read', (path) => {
    const page = pageOf(path)
    const parts = propose(page)
    const { maps } = effect(page, parts)
    expect(new Set(maps.map(({ name }) => name)).size).toBe(maps.length)
    for (const { topics } of maps) expect(topics).toBeLessThanOrEqual(BEARABLE.limit)
    const [before] = effect(page, []).maps
    const unread = maps.filter(({ px }) => px < READABLE_PX)
    // What stays small is single topics as long as a page.
    expect(unread.reduce((sum, { topics }) => sum + topics, 0)).toBeLessThanOrEqual(before!.topics / 2)
    expect(Math.min(...maps.map(({ px }) => px))).toBeGreaterThan(before!.px)
  })

  test.each([...DOCUMENTS, DENSE, ...DENSE_MAPS])('%s gets no map of a few topics that could stay', (path) => {
    const page = pageOf(path)
    const parts = propose(page)
    const { maps } = effect(page, parts)
    const hardToRead = (all: typeof maps) =>
      all.filter(({ topics, px }) => topics > BEARABLE.limit || px < READABLE_PX).length
    const needless = parts.filter((part, i) => {
      const others = parts.filter((other) => other !== part)
      return maps[i + 1]!.topics < BEARABLE.least && hardToRead(effect(page, others).maps) <= hardToRead(maps)
    })
    expect(needless.map(({ name }) => name)).toEqual([])
  })

  test.each([...DOCUMENTS, DENSE, ...DENSE_MAPS])(
    '%s is divided with no more links cut than by the best of 1,000 random divisions',
    (path) => {
      const { garden, map } = pageOf(path)
      const { tree } = topicTreeOf(garden.records, map)!
      const proposed = new Division(tree, BEARABLE, divideTied(tree, BEARABLE))
      expect(proposed.cutTies).toBeLessThanOrEqual(bestOfRandom(tree, proposed.cuts.length))
    },
  )
})

/** The fewest ties that any of 1,000 random divisions cuts, of as many maps, none of them over the limit. */
function bestOfRandom(tree: TopicTree, count: number): number {
  const free = [...tree.cuttable.keys()].filter((node) => tree.cuttable[node])
  let [seed, best] = [7, Number.POSITIVE_INFINITY]
  const random = () => {
    seed = (seed * 1_103_515_245 + 12_345) % 2_147_483_648
    return seed / 2_147_483_648
  }
  for (let i = 0; i < 1000; i++) {
    const cuts = new Set<number>()
    while (cuts.size < Math.min(free.length, count)) cuts.add(free[Math.floor(random() * free.length)]!)
    const division = new Division(tree, BEARABLE, cuts)
    if ([0, ...cuts].every((node) => division.sizeOf(node) <= BEARABLE.limit)) best = Math.min(best, division.cutTies)
  }
  return best
}
