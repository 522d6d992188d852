import fc from 'fast-check'
import { expect, test } from 'vitest'
import { type Crossed, crossingsOf, quietening, type Run } from '../../../src/core/network/clutter'

const line = (key: string, ...numbers: number[]): Run => ({
  key,
  points: numbers.flatMap((x, i) => (i % 2 === 0 ? [{ x, y: numbers[i + 1]! }] : [])),
})

test('lines that cross are counted as often as they do; touching and running along one another is no crossing', () => {
  const runs = [
    line('across', 0, 0, 100, 0),
    line('twice', 10, -10, 30, 10, 50, -10),
    line('up to it', 70, 0, 70, 50),
    line('beside it', 0, 5, 5, 5),
    line('along it', 20, 0, 60, 0),
  ]
  expect(crossingsOf(runs)).toEqual([
    { a: 0, b: 1, times: 2 },
    { a: 1, b: 4, times: 1 },
  ])
})

test('a sweep finds the crossings that comparing every two pieces finds', () => {
  const points = fc.array(fc.record({ x: fc.integer({ min: 0, max: 60 }), y: fc.integer({ min: 0, max: 60 }) }), {
    minLength: 2,
    maxLength: 5,
  })
  fc.assert(
    fc.property(fc.array(points, { maxLength: 12 }), (paths) => {
      const runs = paths.map((each, i) => ({ key: String(i), points: each }))
      const swept = crossingsOf(runs).reduce((sum, { times }) => sum + times, 0)
      // Of two at a time there is no order in which a sweep could miss one.
      let paired = 0
      for (const [i, a] of runs.entries())
        for (const b of runs.slice(i + 1))
          for (let m = 1; m < a.points.length; m++)
            for (let n = 1; n < b.points.length; n++)
              paired += crossingsOf([
                { key: 'a', points: a.points.slice(m - 1, m + 1) },
                { key: 'b', points: b.points.slice(n - 1, n + 1) },
              ]).length
      expect(swept).toBe(paired)
    }),
    { numRuns: 200 },
  )
})

/** Crossings that are left when some lines are gone. */
const left = (crossed: readonly Crossed[], gone: readonly number[]) =>
  crossed.reduce((sum, { a, b, times }) => sum + (gone.includes(a) || gone.includes(b) ? 0 : times), 0)

const crossings = (lines: number) =>
  fc
    .uniqueArray(
      fc.record({
        a: fc.integer({ min: 0, max: lines - 1 }),
        b: fc.integer({ min: 0, max: lines - 1 }),
        times: fc.integer({ min: 1, max: 4 }),
      }),
      { selector: ({ a, b }) => `${Math.min(a, b)} ${Math.max(a, b)}`, maxLength: 24 },
    )
    .map((all) => all.filter(({ a, b }) => a !== b))

test('the fewest lines are made quiet with which four fifths of the crossings go, as by trying everything', () => {
  const LINES = 9
  fc.assert(
    fc.property(crossings(LINES), (crossed) => {
      const { lines, removed, of } = quietening(crossed)
      expect(of - left(crossed, lines)).toBe(removed)
      expect(removed).toBeGreaterThanOrEqual(of * 0.8)
      let fewest = LINES
      for (let chosen = 0; chosen < 1 << LINES; chosen++) {
        const gone = Array.from({ length: LINES }, (_, i) => i).filter((i) => chosen & (1 << i))
        if (gone.length < fewest && left(crossed, gone) <= of * 0.2 + 1e-9) fewest = gone.length
      }
      expect(lines.length).toBe(fewest)
    }),
    { numRuns: 150 },
  )
})

test('where very many lines cross, four fifths of the crossings still go, and soon', () => {
  const runs = Array.from({ length: 600 }, (_, i) =>
    i % 2 ? line(String(i), 0, i, 1_000, i) : line(String(i), i, -10, i, 1_000),
  )
  const crossed = crossingsOf(runs)
  const { lines, removed, of } = quietening(crossed)
  expect(of).toBeGreaterThan(40_000)
  expect(removed).toBeGreaterThanOrEqual(of * 0.8)
  expect(lines.length).toBeLessThan(300)
})

test('a great many lines that cross in small groups are looked at in no time', () => {
  const runs = Array.from({ length: 1_500 }, (_, i) => {
    const [x, y] = [(i % 3) * 10, Math.floor(i / 3) * 100]
    return line(String(i), x, y, 30 - x, y + 50)
  })
  const { lines, removed, of } = quietening(crossingsOf(runs))
  expect(of).toBeGreaterThan(400)
  expect(removed).toBeGreaterThanOrEqual(of * 0.8)
  expect(new Set(lines).size).toBe(lines.length)
}, 5_000)
