/** Lines of one text that stand in the place of lines of another; ends are exclusive. */
export interface LineHunk {
  oldStart: number
  oldEnd: number
  newStart: number
  newEnd: number
}

/** Steps that a comparison may take: some ten milliseconds. */
const MOST_STEPS = 1_500_000

/**
 * Where two texts differ, as the fewest lines out and in: the greedy O(ND) algorithm of Myers, "An O(ND) Difference
 * Algorithm and Its Variations", 1986, in its linear-space form, after equal beginnings and ends. Lines are compared by
 * number. Whatever the texts, it takes at most `MOST_STEPS` steps and O(lines): what is not settled by then is one hunk.
 * Hunks are in order and do not touch.
 */
export function lineDifference(before: readonly string[], after: readonly string[]): LineHunk[] {
  const numbers = new Map<string, number>()
  const numbered = (lines: readonly string[]) =>
    Int32Array.from(lines, (line) => {
      let number = numbers.get(line)
      if (number === undefined) numbers.set(line, (number = numbers.size))
      return number
    })
  const [a, b] = [numbered(before), numbered(after)]
  const hunks: LineHunk[] = []
  const budget = { steps: MOST_STEPS }
  // Stretches still to be compared, the next one last.
  const waiting: LineHunk[] = [{ oldStart: 0, oldEnd: a.length, newStart: 0, newEnd: b.length }]
  for (let next = waiting.pop(); next; next = waiting.pop()) {
    const part = trimmed(a, b, next)
    const { oldStart, oldEnd, newStart, newEnd } = part
    if (oldStart === oldEnd && newStart === newEnd) continue
    const middle = oldStart === oldEnd || newStart === newEnd ? null : middleSnake(a, b, part, budget)
    if (!middle) {
      join(hunks, part)
      continue
    }
    waiting.push({ ...part, oldStart: middle.oldEnd, newStart: middle.newEnd })
    waiting.push({ ...part, oldEnd: middle.oldStart, newEnd: middle.newStart })
  }
  return hunks
}

function trimmed(a: Int32Array, b: Int32Array, { oldStart, oldEnd, newStart, newEnd }: LineHunk): LineHunk {
  while (oldStart < oldEnd && newStart < newEnd && a[oldStart] === b[newStart]) {
    oldStart++
    newStart++
  }
  while (oldEnd > oldStart && newEnd > newStart && a[oldEnd - 1] === b[newEnd - 1]) {
    oldEnd--
    newEnd--
  }
  return { oldStart, oldEnd, newStart, newEnd }
}

function join(hunks: LineHunk[], hunk: LineHunk): void {
  const last = hunks.at(-1)
  if (last && last.oldEnd === hunk.oldStart && last.newEnd === hunk.newStart) {
    last.oldEnd = hunk.oldEnd
    last.newEnd = hunk.newEnd
  } else hunks.push(hunk)
}

/**
 * A run of equal lines in the middle of a shortest way through a stretch; null where the budget ends first. The run may be
 * empty, but then both parts beside it are smaller than the stretch.
 */
function middleSnake(
  a: Int32Array,
  b: Int32Array,
  { oldStart, oldEnd, newStart, newEnd }: LineHunk,
  budget: { steps: number },
): LineHunk | null {
  const [n, m] = [oldEnd - oldStart, newEnd - newStart]
  const delta = n - m
  const isOdd = delta % 2 !== 0
  const most = Math.ceil((n + m) / 2)
  const offset = most + 1
  const forward = new Int32Array(2 * most + 3)
  const backward = new Int32Array(2 * most + 3)
  for (let d = 0; d <= most; d++) {
    for (let k = -d; k <= d; k += 2) {
      const from = nextReach(forward, offset, d, k)
      let x = from
      while (x < n && x - k < m && a[oldStart + x] === b[newStart + x - k]) x++
      forward[offset + k] = x
      budget.steps -= 1 + x - from
      const opposite = delta - k
      if (isOdd && Math.abs(opposite) < d && x + backward[offset + opposite]! >= n)
        return run(oldStart + from, oldStart + x, newStart + from - k)
    }
    for (let k = -d; k <= d; k += 2) {
      const from = nextReach(backward, offset, d, k)
      let x = from
      while (x < n && x - k < m && a[oldEnd - 1 - x] === b[newEnd - 1 - x + k]) x++
      backward[offset + k] = x
      budget.steps -= 1 + x - from
      const opposite = delta - k
      if (!isOdd && Math.abs(opposite) <= d && x + forward[offset + opposite]! >= n)
        return run(oldEnd - x, oldEnd - from, newEnd - x + k)
    }
    if (budget.steps < 0) return null
  }
  return null
}

const run = (oldStart: number, oldEnd: number, newStart: number): LineHunk => ({
  oldStart,
  oldEnd,
  newStart,
  newEnd: newStart + oldEnd - oldStart,
})

/** Where the furthest way on a diagonal begins with its next edit: from the diagonal above or from that below. */
function nextReach(reach: Int32Array, offset: number, d: number, k: number): number {
  const down = k === -d || (k !== d && reach[offset + k - 1]! < reach[offset + k + 1]!)
  return down ? reach[offset + k + 1]! : reach[offset + k - 1]! + 1
}
