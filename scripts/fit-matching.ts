import { type Evidence, WORTH, type Worth } from '../src/core/matching/evidence'
import { MapMatching, type TextTree } from '../src/core/matching/match-maps'
import { english } from '../src/server/lexicon/lexicon'
import { type LabelledMerge, labelledMerges } from '../tests/core/matching/labelled'

/**
 * Finds what evidence is worth for matching, by logistic regression on every second labelled merge, and prints it. Each merge
 * is taken as it is and in other forms: siblings in another order, topics left out on both sides, topics hung elsewhere,
 * so that order and completeness do not count for more than they are worth. What is found spreads over the trees, so
 * it is found again some times.
 */
const ROUNDS = 5
const STEADINESS = { pair: 2, same: 3 }
const KEYS = Object.keys(WORTH.pair) as (keyof Worth)[]

let seed = 5
const random = () => {
  seed = (seed * 1_103_515_245 + 12_345) % 2_147_483_648
  return seed / 2_147_483_648
}

/** A tree with some of its topics left out, with what hangs on them, some hung elsewhere, and siblings in another order. */
function varied({ texts, parents }: TextTree, leftOut: number, moved: number, isShuffled: boolean) {
  const children: number[][] = parents.map(() => [])
  for (const [node, parent] of parents.entries()) if (parent >= 0) children[parent]!.push(node)
  for (let node = 1; node < parents.length; node++) {
    const elsewhere = Math.floor(random() * parents.length)
    if (children[node]!.length > 0 || children[elsewhere]!.length === 0 || random() >= moved) continue
    children[parents[node]!] = children[parents[node]!]!.filter((other) => other !== node)
    children[elsewhere]!.push(node)
  }
  const tree = { texts: [] as string[], parents: [] as number[] }
  const became = new Map<number, number>()
  const take = (node: number, parent: number) => {
    if (node > 0 && random() < leftOut) return
    became.set(node, tree.texts.push(texts[node]!) - 1)
    tree.parents.push(parent)
    const below = children[node]!.map((child) => ({ child, at: isShuffled ? random() : 0 }))
    for (const { child } of below.sort((x, y) => x.at - y.at)) take(child, became.get(node)!)
  }
  take(0, -1)
  return { tree, became }
}

function variant(merge: LabelledMerge, leftOut: number, moved: number, isShuffled: boolean): LabelledMerge {
  const [a, b] = [varied(merge.a, leftOut, 0, false), varied(merge.b, leftOut, moved, isShuffled)]
  const pairs = [...merge.pairs].flatMap(([pair, label]): [string, typeof label][] => {
    const [of, other] = pair.split(' ').map(Number)
    const [x, y] = [a.became.get(of!), b.became.get(other!)]
    return x === undefined || y === undefined ? [] : [[`${x} ${y}`, label]]
  })
  return { name: merge.name, a: a.tree, b: b.tree, pairs: new Map(pairs) }
}

/** Evidence as numbers, in the order of `KEYS`; see `certainty` in core/matching/evidence. */
function factors({ text, spelling, parents, children, siblings, neighbours }: Evidence): number[] {
  const values: Worth = {
    nothing: 1,
    text,
    equal: text === 1 ? 1 : 0,
    spelling,
    parents,
    children: children ?? 0,
    siblings: siblings ?? 0.5,
    neighbours,
    leaf: children === null ? 1 : 0,
    textAmong: text * parents,
  }
  return KEYS.map((key) => values[key])
}

/** Logistic regression with a quadratic penalty, by Newton's method with bounded steps. */
function regress(rows: readonly number[][], isOne: readonly boolean[], from: Worth, penalty: number): Worth {
  let weights = KEYS.map((key) => from[key])
  for (let step = 0; step < 25; step++) {
    const system = weights.map((weight, i) => [
      ...weights.map((_, j) => (i === j ? penalty : 0)),
      i === 0 ? 0 : -penalty * weight,
    ])
    rows.forEach((row, k) => {
      const chance = 1 / (1 + Math.exp(-row.reduce((sum, value, i) => sum + value * weights[i]!, 0)))
      const rest = (isOne[k] ? 1 : 0) - chance
      for (const [i, value] of row.entries()) {
        system[i]![row.length]! += rest * value
        for (const [j, other] of row.entries()) system[i]![j]! += chance * (1 - chance) * value * other
      }
    })
    const steps = solve(system)
    weights = weights.map((weight, i) => weight + Math.max(-2, Math.min(2, steps[i]!)))
    if (Math.max(...steps.map(Math.abs)) < 1e-4) break
  }
  return Object.fromEntries(KEYS.map((key, i) => [key, weights[i]!])) as Worth
}

/** Gauss and Jordan, with the right side as the last column. */
function solve(system: number[][]): number[] {
  for (let i = 0; i < system.length; i++) {
    const pivot = system.reduce(
      (best, row, at) => (at >= i && Math.abs(row[i]!) > Math.abs(system[best]![i]!) ? at : best),
      i,
    )
    ;[system[i], system[pivot]] = [system[pivot]!, system[i]!]
    for (const [at, row] of system.entries()) {
      if (at === i) continue
      const factor = row[i]! / system[i]![i]!
      for (let column = i; column <= system.length; column++) row[column]! -= factor * system[i]![column]!
    }
  }
  return system.map((row, i) => row[system.length]! / row[i]!)
}

const merges = labelledMerges()
  .filter((_, i) => i % 2 === 0)
  .flatMap((merge) => [
    merge,
    variant(merge, 0, 0, true),
    variant(merge, 0.2, 0.1, true),
    variant(merge, 0.35, 0.2, true),
    variant(merge, 0.2, 0, false),
  ])
for (let round = 0; round < ROUNDS; round++) {
  const examples = merges.flatMap(({ a, b, pairs }) => {
    const matching = new MapMatching(a, b, english())
    matching.spread()
    return [...matching.considered()].map((pair) => ({
      row: factors(pair.evidence),
      label: pairs.get(`${pair.a} ${pair.b}`),
    }))
  })
  const labelled = examples.filter(({ label }) => label)
  const rowsOf = (of: typeof examples) => of.map(({ row }) => row)
  const pair = regress(
    rowsOf(examples),
    examples.map(({ label }) => label !== undefined),
    WORTH.pair,
    STEADINESS.pair,
  )
  const same = regress(
    rowsOf(labelled),
    labelled.map(({ label }) => label === 'same'),
    WORTH.same,
    STEADINESS.same,
  )
  for (const key of KEYS) {
    // A part of what was is kept, so that one round does not undo another.
    WORTH.pair[key] = 0.3 * WORTH.pair[key] + 0.7 * pair[key]
    WORTH.same[key] = same[key]
  }
}
for (const [name, worth] of Object.entries(WORTH))
  console.log(name, Object.fromEntries(KEYS.map((key) => [key, Math.round(worth[key] * 100) / 100])))
