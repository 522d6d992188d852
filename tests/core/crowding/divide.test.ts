import fc from 'fast-check'
import { expect, test } from 'vitest'
import { divideTree } from '../../../src/core/crowding/divide'
import { divideTied } from '../../../src/core/crowding/divide-tied'
import { Division } from '../../../src/core/crowding/division'
import { BEARABLE, type Bearable } from '../../../src/core/crowding/piece-cost'
import { type TopicTree, treeOf } from '../../../src/core/crowding/topic-tree'

const SMALL: Bearable = { target: 3, limit: 5, least: 3 }

/** Parents so that each branch is one run of nodes: a node hangs on the one before it or on one above that. */
const trees = (most: number, ties: number) =>
  fc
    .record({
      steps: fc.array(fc.nat(3), { minLength: 1, maxLength: most - 1 }),
      ends: fc.array(fc.tuple(fc.nat(most - 1), fc.nat(most - 1)), { maxLength: ties }),
    })
    .map(({ steps, ends }) => {
      const parents = [-1]
      for (const up of steps) {
        let above = parents.length - 1
        for (let i = 0; i < up && above > 0; i++) above = parents[above]!
        parents.push(above)
      }
      const size = parents.length
      const pairs = ends.map(([a, b]): [number, number] => [a % size, b % size]).filter(([a, b]) => a !== b)
      return treeOf(parents, pairs)
    })

/** The least that any division of a tree costs. */
function least(tree: TopicTree, bearable: Bearable): number {
  const free = [...tree.cuttable.keys()].filter((node) => tree.cuttable[node])
  let best = Number.POSITIVE_INFINITY
  for (let choice = 0; choice < 2 ** free.length; choice++) {
    const cuts = free.filter((_, i) => choice & (1 << i))
    best = Math.min(best, new Division(tree, bearable, cuts).cost)
  }
  return best
}

const costOf = (tree: TopicTree, bearable: Bearable, cuts: number[]) => new Division(tree, bearable, cuts).cost

test('a division is as good as the best of all where nothing is tied', () => {
  fc.assert(
    fc.property(trees(14, 0), (tree) => {
      expect(
        costOf(
          tree,
          SMALL,
          divideTree(tree, SMALL, () => 0),
        ),
      ).toBeCloseTo(least(tree, SMALL), 9)
    }),
    { numRuns: 400 },
  )
})

test('with ties it is as good as the best of all small trees', () => {
  let [equal, all] = [0, 0]
  fc.assert(
    fc.property(trees(13, 5), (tree) => {
      const [found, best] = [costOf(tree, SMALL, divideTied(tree, SMALL)), least(tree, SMALL)]
      all++
      if (found < best + 1e-6) equal++
    }),
    { numRuns: 400 },
  )
  expect(equal).toBe(all)
})

test('what a cut would change is what it changes', () => {
  fc.assert(
    fc.property(trees(30, 8), fc.array(fc.nat(29), { maxLength: 12 }), (tree, nodes) => {
      const division = new Division(tree, SMALL, [])
      for (const node of nodes) {
        if (!tree.cuttable[node]) continue
        const [before, change] = [division.cost, division.changeBy(node).cost]
        division.toggle(node)
        expect(division.cost).toBeCloseTo(before + change, 6)
        expect(new Division(tree, SMALL, division.cuts).cost).toBeCloseTo(division.cost, 6)
      }
    }),
  )
})

test('a map over the limit falls into maps that can be read, in a bounded time', () => {
  const parents = [-1]
  // A tree of 10,000 nodes: each of the first 2,000 has four more.
  for (let node = 1; node < 10_000; node++) parents.push(-2)
  const children = (node: number, from: number, to: number, depth: number) => {
    const count = depth < 3 ? 8 : 5
    const size = Math.ceil((to - from) / count)
    for (let start = from; start < to; start += size) {
      parents[start] = node
      if (start + 1 < Math.min(to, start + size)) children(start, start + 1, Math.min(to, start + size), depth + 1)
    }
  }
  children(0, 1, 10_000, 0)
  const ties = Array.from({ length: 500 }, (_, i): [number, number] => [
    (i * 7919) % 10_000,
    (i * 7919 + (i % 40) + 1) % 10_000,
  ])
  const tree = treeOf(parents, ties)
  const division = new Division(tree, BEARABLE, divideTied(tree, BEARABLE))
  const sizes = [0, ...division.cuts].map((map) => division.sizeOf(map))
  expect(Math.max(...sizes)).toBeLessThanOrEqual(BEARABLE.limit)
  expect(Math.min(...sizes)).toBeGreaterThanOrEqual(BEARABLE.least)
})
