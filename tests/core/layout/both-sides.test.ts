import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { layoutBothSides } from '../../../src/core/layout/both-sides'
import { type BoxTree, boxTree, SPACING } from '../../../src/core/layout/tree'

/** A tree from a list of parents: node i + 1 hangs on any node before it; then numbered in reading order. */
function treeFrom(nodes: { parent: number; width: number; height: number; left: boolean }[]): BoxTree {
  const children: number[][] = nodes.map(() => [])
  nodes.forEach((node, i) => {
    if (i > 0) children[node.parent % i]!.push(i)
  })
  const tree = boxTree(nodes.length)
  const order: { node: number; parent: number }[] = []
  const waiting = [{ node: 0, parent: -1 }]
  for (let next = waiting.pop(); next; next = waiting.pop()) {
    const at = order.push(next) - 1
    for (const child of [...children[next.node]!].reverse()) waiting.push({ node: child, parent: at })
  }
  const last = new Map<number, number>()
  order.forEach(({ node, parent }, i) => {
    tree.width[i] = nodes[node]!.width
    tree.height[i] = nodes[node]!.height
    tree.left[i] = nodes[node]!.left ? 1 : 0
    tree.parent[i] = parent
    if (parent < 0) return
    const before = last.get(parent)
    if (before === undefined) tree.first[parent] = i
    else tree.next[before] = i
    last.set(parent, i)
  })
  return tree
}

/** Sizes of any kind, and, as in real maps, many that are equal to one another. */
const length = (max: number) =>
  fc.oneof(fc.double({ min: 1, max, noNaN: true }), fc.constantFrom(max / 8, max / 4, max / 2))
const node = fc.record({ parent: fc.nat(1_000), width: length(400), height: length(120), left: fc.boolean() })

function overlaps(tree: BoxTree): [number, number][] {
  const { x, y } = layoutBothSides(tree)
  const found: [number, number][] = []
  const slack = 1e-6
  for (let a = 0; a < tree.count; a++)
    for (let b = a + 1; b < tree.count; b++)
      if (
        x[a]! < x[b]! + tree.width[b]! - slack &&
        x[b]! < x[a]! + tree.width[a]! - slack &&
        y[a]! < y[b]! + tree.height[b]! + SPACING.siblings[2] - slack &&
        y[b]! < y[a]! + tree.height[a]! + SPACING.siblings[2] - slack
      )
        found.push([a, b])
  return found
}

describe('layout to both sides', () => {
  test('never lets two boxes come closer than the gap, in any tree', () => {
    fc.assert(
      fc.property(fc.array(node, { minLength: 1, maxLength: 120 }), (nodes) => {
        expect(overlaps(treeFrom(nodes))).toEqual([])
      }),
      { numRuns: 400 },
    )
  })

  test('sets a parent at the middle of its children and grows away from the root', () => {
    const size = { width: 100, height: 20 }
    const tree = treeFrom([
      { parent: 0, left: false, ...size },
      { parent: 0, left: false, ...size },
      { parent: 0, left: false, ...size },
      { parent: 0, left: true, ...size },
    ])
    const { x, y } = layoutBothSides(tree)
    expect([...x]).toEqual([-50, 50 + SPACING.level, 50 + SPACING.level, -150 - SPACING.level])
    expect((y[1]! + y[2]!) / 2).toBeCloseTo(y[0]!)
    expect(y[2]! - y[1]!).toBeCloseTo(20 + SPACING.siblings[0])
    expect(y[3]!).toBeCloseTo(y[0]!)
  })

  test('lets a short branch nestle under the reach of a long one', () => {
    // Two first-level branches: the first has a wide fan two levels on, the second is a single box.
    const nodes = [
      { parent: 0, width: 50, height: 20, left: false },
      { parent: 0, width: 50, height: 20, left: false },
    ]
    nodes.push({ parent: 1, width: 50, height: 20, left: false })
    for (let i = 0; i < 9; i++) nodes.push({ parent: 2, width: 50, height: 20, left: false })
    nodes.push({ parent: 0, width: 50, height: 20, left: false })
    const tree = treeFrom(nodes)
    const { y } = layoutBothSides(tree)
    const single = tree.count - 1
    expect(y[single]! - y[1]!).toBeCloseTo(20 + SPACING.siblings[0])
  })

  test('stands 100,000 levels', () => {
    const tree = treeFrom(
      Array.from({ length: 100_000 }, (_, i) => ({ parent: i - 1, width: 10, height: 10, left: false })),
    )
    expect(layoutBothSides(tree).y.every((y) => y === -5)).toBe(true)
  })
})
