import { lineDifference } from './line-difference'

/** A region in which one side replaced the base's lines from `from` to `to` (exclusive) by its own. */
interface Hunk {
  from: number
  to: number
  lines: readonly string[]
}

/** Most lines, of all three texts together, that are compared one by one. */
const MOST_LINES = 40_000

/**
 * Joins two texts that were both made from `base`, line by line. Where both changed the same or touching lines, both
 * versions are kept, `mine` after `theirs`, so that nobody's words are lost; where both did the same it stands once.
 * Method: Khanna, Kunal and Pierce, "A Formal Investigation of Diff3", 2007. Equal beginnings and ends cost a look at each
 * letter; the work between them is bounded, and where the bound is reached both versions are kept there. Two versions `stand` with an
 * empty line between them, as Markdown needs it, or without.
 */
export function mergeText(
  base: string,
  theirs: string,
  mine: string,
  stand: 'as paragraphs' | 'as lines' = 'as paragraphs',
): { text: string; overlapping: boolean } {
  const between = stand === 'as lines' ? [] : ['']
  if (theirs === base || theirs === mine) return { text: mine, overlapping: false }
  if (mine === base) return { text: theirs, overlapping: false }
  const start = sharedStart(base, theirs, mine)
  const end = sharedEnd(base, theirs, mine, start)
  const parts = [base, theirs, mine].map((text) => text.slice(start, text.length - end)) as [string, string, string]
  const lines = parts.reduce((sum, part) => sum + countLines(part), 0)
  const { text, overlapping } =
    lines > MOST_LINES
      ? { text: bothOf(parts[1], parts[2], between), overlapping: true }
      : mergeLines(...parts, between)
  return { text: mine.slice(0, start) + text + mine.slice(mine.length - end), overlapping }
}

const bothOf = (theirs: string, mine: string, between: readonly string[]): string =>
  theirs === '' ? mine : mine === '' ? theirs : [theirs, ...between, mine].join('\n')

/** Letters of whole lines with which all three begin. */
function sharedStart(a: string, b: string, c: string): number {
  const least = Math.min(a.length, b.length, c.length)
  let at = 0
  while (at < least && a.charCodeAt(at) === b.charCodeAt(at) && a.charCodeAt(at) === c.charCodeAt(at)) at++
  return a.lastIndexOf('\n', at - 1) + 1
}

/** Letters of whole lines with which all three end, behind where they begin alike. */
function sharedEnd(a: string, b: string, c: string, start: number): number {
  const most = Math.min(a.length, b.length, c.length) - start
  let at = 0
  while (at < most) {
    const sign = a.charCodeAt(a.length - 1 - at)
    if (sign !== b.charCodeAt(b.length - 1 - at) || sign !== c.charCodeAt(c.length - 1 - at)) break
    at++
  }
  const line = a.indexOf('\n', a.length - at)
  return at === 0 || line < 0 ? 0 : a.length - line
}

function countLines(text: string): number {
  let count = 1
  for (let at = text.indexOf('\n'); at >= 0; at = text.indexOf('\n', at + 1)) count++
  return count
}

function mergeLines(
  base: string,
  theirs: string,
  mine: string,
  between: readonly string[],
): { text: string; overlapping: boolean } {
  const original = base.split('\n')
  const left = hunksBetween(original, theirs.split('\n'))
  const right = hunksBetween(original, mine.split('\n'))
  const lines: string[] = []
  let overlapping = false
  let at = 0
  for (let i = 0, j = 0; i < left.length || j < right.length; ) {
    const first = Math.min(left[i]?.from ?? original.length, right[j]?.from ?? original.length)
    let end = first
    const [fromI, fromJ] = [i, j]
    // Hunks that touch one another, on either side, are one region.
    for (let grown = true; grown; ) {
      grown = false
      for (; i < left.length && left[i]!.from <= end; grown = true) end = Math.max(end, left[i++]!.to)
      for (; j < right.length && right[j]!.from <= end; grown = true) end = Math.max(end, right[j++]!.to)
    }
    push(lines, original, at, first)
    const a = applied(original, left.slice(fromI, i), first, end)
    const b = applied(original, right.slice(fromJ, j), first, end)
    const isSame = a.length === b.length && a.every((line, n) => line === b[n])
    if (fromI === i || isSame) append(lines, b)
    else if (fromJ === j) append(lines, a)
    else {
      overlapping = true
      append(lines, a)
      if (a.length > 0 && b.length > 0) append(lines, between)
      append(lines, b)
    }
    at = end
  }
  push(lines, original, at, original.length)
  return { text: lines.join('\n'), overlapping }
}

function hunksBetween(before: readonly string[], after: readonly string[]): Hunk[] {
  return lineDifference(before, after).map(({ oldStart, oldEnd, newStart, newEnd }) => ({
    from: oldStart,
    to: oldEnd,
    lines: after.slice(newStart, newEnd),
  }))
}

/** The base's lines from `from` to `to` with these hunks applied. */
function applied(base: readonly string[], hunks: readonly Hunk[], from: number, to: number): string[] {
  const lines: string[] = []
  let at = from
  for (const hunk of hunks) {
    push(lines, base, at, hunk.from)
    append(lines, hunk.lines)
    at = hunk.to
  }
  push(lines, base, at, to)
  return lines
}

function push(into: string[], from: readonly string[], start: number, end: number): void {
  for (let i = start; i < end; i++) into.push(from[i]!)
}
const append = (into: string[], lines: readonly string[]) => push(into, lines, 0, lines.length)
