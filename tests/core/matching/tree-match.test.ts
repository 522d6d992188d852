import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { likeness, matchTrees, type TreeLine } from '../../../src/core/matching/tree-match'

/** `a > b` is b one level below a. */
const tree = (text: string): TreeLine[] =>
  text.split(', ').map((part) => ({ level: part.lastIndexOf('>') + 1, text: part.replaceAll('>', '') }))
const match = (before: string, after: string) => [...matchTrees(tree(before), tree(after))]

describe('matching trees', () => {
  test('never uses a node twice, and finds all of what did not change', () => {
    const line = fc.record({ level: fc.nat(3), text: fc.constantFrom('a', 'b', 'c', 'dd', 'ee') })
    const lines = fc.array(line, { maxLength: 30 }).map((rows) => {
      let last = -1
      return rows.map(({ level, text }) => ({ level: (last = Math.min(level, last + 1)), text }))
    })
    fc.assert(
      fc.property(lines, lines, (before, after) => {
        expect([...matchTrees(before, before)]).toEqual(before.map((_, i) => i))
        const used = [...matchTrees(before, after)].filter((old) => old >= 0)
        expect(new Set(used).size).toBe(used.length)
      }),
    )
  })

  test.each([
    ['branches that change places', 'A, >Cost, B, >Cost', 'B, >Cost, A, >Cost', [2, 3, 0, 1]],
    ['the same with one of them renamed', 'Alder, >Cost, B, >Cost', 'B, >Cost, Alders, >Cost', [2, 3, 0, 1]],
    ['headings that are renamed', 'A, >Cost, B, >Cost', 'Q, >Cost, R, >Cost', [0, 1, 2, 3]],
    ['a heading that goes', 'A, >Cost, >Time, B', 'Cost, Time, B', [1, 2, 3]],
    ['a leaf that moves', 'A, >Cost, B, >Time', 'A, B, >Time, >Cost', [0, 2, 3, 1]],
    ['a heading between', 'A, >Cost, >Time', 'A, >New, >>Cost, >>Time', [0, -1, 1, 2]],
  ])('follows %s', (_, before, after, expected) => {
    expect(match(before, after)).toEqual(expected)
  })

  test('finds the one that is most alike where several siblings changed', () => {
    const before = 'first, Read the dipwells on Friday, Mow the rand, last'
    const after = 'first, Mow the rand in August, Read all dipwells on Friday, A new line, last'
    expect(match(before, after)).toEqual([0, 2, 1, -1, 3])
    expect(likeness('dipwell', 'dipwells')).toBeGreaterThan(0.9)
    expect(likeness('dipwell', 'rhubarb')).toBe(0)
  })

  test('takes little time for 10,000 equal nodes, deep or side by side', () => {
    const start = performance.now()
    for (const level of [() => 0, (i: number) => i, (i: number) => i % 2])
      for (const text of [() => 'Cost', (i: number) => `Cost ${i % 3}`]) {
        const lines = (count: number) => Array.from({ length: count }, (_, i) => ({ level: level(i), text: text(i) }))
        expect(matchTrees(lines(10_000), lines(9_000)).length).toBe(9_000)
      }
    expect(performance.now() - start).toBeLessThan(8_000)
  })
})
