import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { lineDifference } from '../../../src/core/text/line-difference'
import { mergeText } from '../../../src/core/text/merge-text'

const lines = fc.array(fc.constantFrom('a', 'b', 'c', '', 'a longer line'), { maxLength: 40 })

describe('the difference of two texts', () => {
  test('applied to the one gives the other, and its hunks do not touch', () => {
    fc.assert(
      fc.property(lines, lines, (before, after) => {
        const hunks = lineDifference(before, after)
        const made: string[] = []
        let at = 0
        for (const { oldStart, oldEnd, newStart, newEnd } of hunks) {
          expect(oldStart).toBeGreaterThanOrEqual(at === 0 ? 0 : at + 1)
          made.push(...before.slice(at, oldStart), ...after.slice(newStart, newEnd))
          at = oldEnd
        }
        expect([...made, ...before.slice(at)]).toEqual(after)
      }),
      { numRuns: 1_000 },
    )
  })

  test('takes as few lines out and in as can be', () => {
    const edits = (before: string, after: string) =>
      lineDifference([...before], [...after]).reduce(
        (sum, { oldStart, oldEnd, newStart, newEnd }) => sum + oldEnd - oldStart + newEnd - newStart,
        0,
      )
    expect(edits('abcabba', 'cbabac')).toBe(5)
    expect(edits('kitten', 'sitting')).toBe(5)
    expect(edits('', 'abc')).toBe(3)
  })
})

describe('joining what two people wrote', () => {
  test('keeps what either did alone', () => {
    fc.assert(
      fc.property(lines, lines, (base, other) => {
        const [a, b] = [base.join('\n'), other.join('\n')]
        expect(mergeText(a, b, a).text).toBe(b)
        expect(mergeText(a, a, b).text).toBe(b)
        expect(mergeText(a, b, b)).toEqual({ text: b, overlapping: false })
      }),
    )
  })

  test('joins changes in different places, and keeps both where they touch', () => {
    expect(mergeText('1\n2\n3\n4', '1!\n2\n3\n4', '1\n2\n3\n4!').text).toBe('1!\n2\n3\n4!')
    expect(mergeText('a\nb', 'a\nmine', 'a\nyours')).toEqual({ text: 'a\nmine\n\nyours', overlapping: true })
    expect(mergeText('a\nb\nc', 'a\nc', 'a\nB\nc')).toEqual({ text: 'a\nB\nc', overlapping: true })
    expect(mergeText('a\nb\nc', 'a\nX\nb\nc', 'a\nX\nb\nc\nd').text).toBe('a\nX\nb\nc\nd')
  })

  test('loses no line that somebody wrote', () => {
    const written = fc.array(fc.stringMatching(/^[a-z]{1,3}$/), { maxLength: 30 })
    fc.assert(
      fc.property(written, written, written, (base, theirs, mine) => {
        const { text } = mergeText(base.join('\n'), theirs.join('\n'), mine.join('\n'))
        const kept = new Set(text.split('\n'))
        for (const line of [...theirs, ...mine]) if (!base.includes(line)) expect(kept).toContain(line)
      }),
      { numRuns: 500 },
    )
  })

  /** What a client can choose: base, and its own text; the other one is in the note. */
  const half = (text: string) => text.repeat(Math.floor(480_000 / text.length))
  test.each([
    ['800 blank lines', '\n'.repeat(800), `a${'\n'.repeat(801)}`, `${'\n'.repeat(801)}b`],
    ['100,000 blank lines', half('\n'), `a\n${half('\n')}x${half('\n')}`, `${half('\n')}y${half('\n')}b`],
    ['a forged base of other lines', half('a\nb\n'), half('b\na\nc\n'), half('c\nb\na\n')],
    ['no common line', half('1\n'), half('2\n'), half('3\n')],
    ['lines in reverse', range(20_000), range(20_000).split('\n').reverse().join('\n'), `${range(19_000)}\nx`],
    ['one line of half a megabyte', half('abcd'), `${half('abcd')}x`, `y${half('abcd')}`],
    ['many short differences', range(9_000), range(9_000, 'x', 3), range(9_000, 'y', 5)],
  ])('is done soon for %s', (_, base, theirs, mine) => {
    mergeText(base, theirs, mine)
    const start = performance.now()
    const { text } = mergeText(base, theirs, mine)
    const took = performance.now() - start
    // The bound is 50 ms under the lock; a loaded machine gets some air.
    expect(took).toBeLessThan(250)
    expect(text.length).toBeGreaterThan(0)
  })
})

function range(count: number, mark = '', every = 1): string {
  return Array.from({ length: count }, (_, i) => `line ${i}${mark !== '' && i % every === 0 ? mark : ''}`).join('\n')
}

test('of two people are joined by lines, and both stand where they overlap', () => {
  const base = 'one\ntwo\nthree'
  expect(mergeText(base, 'ONE\ntwo\nthree', 'one\ntwo\nTHREE')).toEqual({
    text: 'ONE\ntwo\nTHREE',
    overlapping: false,
  })
  const both = mergeText(base, 'one\nzwei\nthree', 'one\ndeux\nthree')
  expect(both.overlapping).toBe(true)
  expect(both.text).toContain('zwei')
  expect(both.text).toContain('deux')
  expect(mergeText(base, base, 'mine').text).toBe('mine')
  expect(mergeText(base, 'theirs', base).text).toBe('theirs')
})
