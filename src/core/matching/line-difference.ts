import type { OutlineLine } from '../formats/outline-text'

/**
 * For each new line the index of the old line that it is, or -1 where it is new. Each old line is used at most once.
 *
 * Equal beginnings and ends first; between them the lines that stay in order, by the greedy O(ND) algorithm (Myers, "An
 * O(ND) Difference Algorithm and Its Variations", 1986); then equal lines that moved elsewhere; then, in the gaps that
 * are left, lines that were retyped: those most alike, or simply the same number of lines in order. Linear for a small
 * change; bounded for a large one, where moved lines are still found by their text.
 */
export function matchLines(before: readonly OutlineLine[], after: readonly OutlineLine[]): Int32Array {
  const match = new Int32Array(after.length).fill(-1)
  let start = 0
  while (start < before.length && start < after.length && before[start]!.text === after[start]!.text)
    match[start] = start++
  let oldEnd = before.length
  let newEnd = after.length
  while (oldEnd > start && newEnd > start && before[oldEnd - 1]!.text === after[newEnd - 1]!.text)
    match[--newEnd] = --oldEnd
  keepOrder(before, after, start, oldEnd, newEnd, match)
  const used = new Uint8Array(before.length)
  for (const old of match) if (old >= 0) used[old] = 1
  matchMoved(before, after, match, used)
  matchRetyped(before, after, match, used)
  return match
}

/** Edits beyond which the order of lines is no longer followed: the rest is found by text alone. */
const MOST_EDITS = 2_000

/** Myers' greedy algorithm on the part that differs; fills `match` with the lines that stay in order. */
function keepOrder(
  before: readonly OutlineLine[],
  after: readonly OutlineLine[],
  start: number,
  oldEnd: number,
  newEnd: number,
  match: Int32Array,
): void {
  const rows = oldEnd - start
  const columns = newEnd - start
  if (rows === 0 || columns === 0) return
  const most = Math.min(rows + columns, MOST_EDITS)
  const offset = most + 1
  const reach = new Int32Array(2 * most + 3)
  const trace: Int32Array[] = []
  for (let edits = 0; edits <= most; edits++) {
    trace.push(reach.slice())
    for (let k = -edits; k <= edits; k += 2) {
      const down = k === -edits || (k !== edits && reach[offset + k - 1]! < reach[offset + k + 1]!)
      let x = down ? reach[offset + k + 1]! : reach[offset + k - 1]! + 1
      let y = x - k
      while (x < rows && y < columns && before[start + x]!.text === after[start + y]!.text) {
        x++
        y++
      }
      reach[offset + k] = x
      if (x < rows || y < columns) continue
      follow(trace, edits, k, start, offset, rows, columns, match)
      return
    }
  }
}

/** Walks the furthest reaching paths back and notes the diagonals, which are lines that stayed. */
function follow(
  trace: readonly Int32Array[],
  edits: number,
  lastK: number,
  start: number,
  offset: number,
  rows: number,
  columns: number,
  match: Int32Array,
): void {
  let x = rows
  let y = columns
  let k = lastK
  for (let d = edits; d >= 0; d--) {
    const reach = trace[d]!
    const down = k === -d || (k !== d && reach[offset + k - 1]! < reach[offset + k + 1]!)
    const from = down ? k + 1 : k - 1
    const beginX = d === 0 ? 0 : down ? reach[offset + from]! : reach[offset + from]! + 1
    while (x > beginX && x - k > 0 && y > 0 && x > 0) {
      x--
      y--
      match[start + y] = start + x
    }
    if (d === 0) return
    x = down ? beginX : beginX - 1
    y = down ? x - from : x - from
    k = from
  }
}

/** Lines with a text that is gone from its old place: the first unused old line with the same text. */
function matchMoved(
  before: readonly OutlineLine[],
  after: readonly OutlineLine[],
  match: Int32Array,
  used: Uint8Array,
): void {
  const free = new Map<string, number[]>()
  before.forEach(({ text }, i) => {
    if (used[i]) return
    const known = free.get(text)
    if (known) known.push(i)
    else free.set(text, [i])
  })
  after.forEach(({ text }, i) => {
    if (match[i]! >= 0) return
    const old = free.get(text)?.shift()
    if (old === undefined) return
    match[i] = old
    used[old] = 1
  })
}

/** How alike two lines must be to be one that was retyped: the part of letter pairs that they share. */
const ALIKE = 0.4
/** Largest gap in which every old line is compared with every new one. */
const MOST_COMPARED = 400

function matchRetyped(
  before: readonly OutlineLine[],
  after: readonly OutlineLine[],
  match: Int32Array,
  used: Uint8Array,
): void {
  for (let i = 0; i < after.length; ) {
    if (match[i]! >= 0) {
      i++
      continue
    }
    const begin = i
    while (i < after.length && match[i]! < 0) i++
    const from = begin === 0 ? 0 : match[begin - 1]! + 1
    const olds: number[] = []
    for (let old = from; old < before.length && !used[old]; old++) olds.push(old)
    const news = Array.from({ length: i - begin }, (_, n) => begin + n)
    if (olds.length === 0) continue
    if (olds.length === news.length) for (const [n, at] of news.entries()) take(match, used, at, olds[n]!)
    else if (olds.length * news.length <= MOST_COMPARED ** 2) pairAlike(before, after, olds, news, match, used)
  }
}

function take(match: Int32Array, used: Uint8Array, at: number, old: number): void {
  match[at] = old
  used[old] = 1
}

function pairAlike(
  before: readonly OutlineLine[],
  after: readonly OutlineLine[],
  olds: readonly number[],
  news: readonly number[],
  match: Int32Array,
  used: Uint8Array,
): void {
  const pairs: { at: number; old: number; alike: number }[] = []
  for (const at of news)
    for (const old of olds) {
      const alike = likeness(before[old]!.text, after[at]!.text)
      if (alike >= ALIKE) pairs.push({ at, old, alike })
    }
  pairs.sort((a, b) => b.alike - a.alike || a.at - b.at || a.old - b.old)
  for (const { at, old } of pairs) if (match[at]! < 0 && !used[old]) take(match, used, at, old)
}

/** Dice's coefficient over pairs of neighbouring letters, 0 to 1 (Dice, "Measures of the Amount of Ecologic Association", 1945). */
export function likeness(a: string, b: string): number {
  if (a === b) return 1
  if (a.length < 2 || b.length < 2) return 0
  const pairs = new Map<string, number>()
  for (let i = 0; i < a.length - 1; i++) {
    const pair = a.slice(i, i + 2)
    pairs.set(pair, (pairs.get(pair) ?? 0) + 1)
  }
  let shared = 0
  for (let i = 0; i < b.length - 1; i++) {
    const pair = b.slice(i, i + 2)
    const left = pairs.get(pair) ?? 0
    if (left === 0) continue
    pairs.set(pair, left - 1)
    shared++
  }
  return (2 * shared) / (a.length + b.length - 2)
}
