import type { Point } from '../ways/way'

/** A line on a map, as straight pieces. */
export interface Run {
  key: string
  points: readonly Point[]
}

/** Two lines, by their numbers, and how often they cross. */
export interface Crossed {
  a: number
  b: number
  times: number
}

interface Piece {
  run: number
  from: Point
  to: Point
  left: number
  right: number
}

/** At most so many crossings are counted, and pairs of pieces compared: a map with more is cluttered whatever the rest comes to. */
const MOST_CROSSINGS = 50_000
const MOST_COMPARED = 20_000_000

/**
 * Which lines cross, and how often: a sweep from left to right that compares each piece with those that have begun and not
 * ended yet. Touching, or running along one another, is no crossing. O(n log n + pairs of pieces that lie above one another).
 */
export function crossingsOf(runs: readonly Run[]): Crossed[] {
  const pieces = runs.flatMap(({ points }, run) =>
    points.slice(1).map((to, i): Piece => {
      const from = points[i]!
      return { run, from, to, left: Math.min(from.x, to.x), right: Math.max(from.x, to.x) }
    }),
  )
  pieces.sort((x, y) => x.left - y.left)
  const counts = new Map<number, number>()
  let open: Piece[] = []
  let left = MOST_CROSSINGS
  let compared = 0
  for (const piece of pieces) {
    open = open.filter(({ right }) => right >= piece.left)
    compared += open.length
    if (compared > MOST_COMPARED) break
    for (const other of open) {
      if (other.run === piece.run || !doCross(piece, other)) continue
      const pair = Math.min(piece.run, other.run) * runs.length + Math.max(piece.run, other.run)
      counts.set(pair, (counts.get(pair) ?? 0) + 1)
      if (--left === 0) return pairsOf(counts, runs.length)
    }
    open.push(piece)
  }
  return pairsOf(counts, runs.length)
}

const pairsOf = (counts: ReadonlyMap<number, number>, runs: number): Crossed[] =>
  [...counts].map(([pair, times]) => ({ a: Math.floor(pair / runs), b: pair % runs, times }))

/** Twice the area of a triangle: positive where the third point lies to the left of the way from the first to the second. */
const turn = (a: Point, b: Point, c: Point): number => (b.x - a.x) * (c.y - a.y) - (b.y - a.y) * (c.x - a.x)

function doCross({ from: a, to: b }: Piece, { from: c, to: d }: Piece): boolean {
  if (Math.max(a.y, b.y) < Math.min(c.y, d.y) || Math.max(c.y, d.y) < Math.min(a.y, b.y)) return false
  return turn(a, b, c) * turn(a, b, d) < 0 && turn(c, d, a) * turn(c, d, b) < 0
}

/** Lines that can be left out, by their numbers, and how many crossings go with them, of how many. */
export interface Quietening {
  lines: number[]
  removed: number
  of: number
}

/** The part of all crossings that should go. */
const ENOUGH = 0.8
/** Up to so many lines that cross one another, every choice of them is looked at. */
const FEW = 16

/**
 * The fewest lines without which at least `enough` of all crossings are gone. Lines that do not hang together by crossings are
 * looked at group by group: small groups in every way, large ones line by line, each time that which crosses most.
 */
export function quietening(crossed: readonly Crossed[], enough = ENOUGH): Quietening {
  const of = crossed.reduce((sum, { times }) => sum + times, 0)
  const waysOf = groupsOf(crossed).map((group) => (group.lines.length <= FEW ? inEveryWay(group) : lineByLine(group)))
  // For each number of lines: the most crossings that go with so many of the groups seen so far, and how many of the last.
  let best = [0]
  const taken: number[][] = []
  for (const ways of waysOf) {
    const next: number[] = []
    const own: number[] = []
    best.forEach((before, count) => {
      ways.forEach((way, more) => {
        if (before + way.removed <= (next[count + more] ?? -1)) return
        next[count + more] = before + way.removed
        own[count + more] = more
      })
    })
    best = next
    taken.push(own)
  }
  const count = best.findIndex((removed) => removed >= of * enough)
  const lines: number[] = []
  for (let left = count, i = waysOf.length - 1; i >= 0; i--) {
    const more = taken[i]![left]!
    lines.push(...waysOf[i]![more]!.lines)
    left -= more
  }
  return { lines: lines.sort((x, y) => x - y), removed: best[count]!, of }
}

interface CrossedGroup {
  lines: number[]
  crossed: Crossed[]
}

/** Lines that hang together by crossings. */
function groupsOf(crossed: readonly Crossed[]): CrossedGroup[] {
  const groupOf = new Map<number, CrossedGroup>()
  const own = (line: number): CrossedGroup => {
    let group = groupOf.get(line)
    if (!group) groupOf.set(line, (group = { lines: [line], crossed: [] }))
    return group
  }
  for (const pair of crossed) {
    const [first, second] = [own(pair.a), own(pair.b)]
    const [large, small] = first.lines.length >= second.lines.length ? [first, second] : [second, first]
    if (large !== small) {
      large.lines.push(...small.lines)
      large.crossed.push(...small.crossed)
      for (const line of small.lines) groupOf.set(line, large)
    }
    large.crossed.push(pair)
  }
  return [...new Set(groupOf.values())]
}

/** For each number of lines of a group, those with which most crossings go: all choices. O(2^lines · lines). */
function inEveryWay({ lines, crossed }: CrossedGroup): { removed: number; lines: number[] }[] {
  const number = new Map(lines.map((line, i) => [line, i]))
  const times = lines.map(() => new Int32Array(lines.length))
  for (const pair of crossed) {
    const [a, b] = [number.get(pair.a)!, number.get(pair.b)!]
    times[a]![b]! += pair.times
    times[b]![a]! += pair.times
  }
  const totals = times.map((row) => row.reduce((sum, one) => sum + one, 0))
  const removed = new Int32Array(1 << lines.length)
  const best = lines.map(() => 0)
  best.push(0)
  for (let chosen = 1; chosen < removed.length; chosen++) {
    const line = 31 - Math.clz32(chosen)
    const rest = chosen & ~(1 << line)
    let more = totals[line]!
    let count = 1
    for (let other = 0; other < line; other++)
      if (rest & (1 << other)) {
        more -= times[line]![other]!
        count++
      }
    removed[chosen] = removed[rest]! + more
    if (removed[chosen]! > removed[best[count]!]!) best[count] = chosen
  }
  return best.map((chosen) => ({ removed: removed[chosen]!, lines: lines.filter((_, i) => chosen & (1 << i)) }))
}

/** The same where there are too many for that: one line after the other, each time that with which most of the rest goes. */
function lineByLine({ lines, crossed }: CrossedGroup): { removed: number; lines: number[] }[] {
  const left = new Map(lines.map((line) => [line, new Map<number, number>()]))
  for (const { a, b, times } of crossed) {
    left.get(a)!.set(b, times)
    left.get(b)!.set(a, times)
  }
  const totals = new Map(lines.map((line) => [line, [...left.get(line)!.values()].reduce((sum, one) => sum + one, 0)]))
  const ways: { removed: number; lines: number[] }[] = [{ removed: 0, lines: [] }]
  const total = crossed.reduce((sum, { times }) => sum + times, 0)
  for (let before = ways[0]!; before.removed < total; ) {
    let most = lines[0]!
    for (const line of lines) if (totals.get(line)! > totals.get(most)!) most = line
    const way = { removed: before.removed + totals.get(most)!, lines: [...before.lines, most] }
    for (const [other, times] of left.get(most)!) {
      left.get(other)!.delete(most)
      totals.set(other, totals.get(other)! - times)
    }
    left.get(most)!.clear()
    totals.set(most, 0)
    ways.push(way)
    before = way
  }
  return ways
}
