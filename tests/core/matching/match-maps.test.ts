import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { mergeMaps } from '../../../src/core/commands/merge-maps'
import { bestAssignment } from '../../../src/core/matching/assignment'
import { Lexicon } from '../../../src/core/matching/lexicon'
import { matchMaps, type TextTree } from '../../../src/core/matching/match-maps'
import { planMerge } from '../../../src/core/matching/merge-plan'
import { Comparison, comparedText, textLikeness } from '../../../src/core/matching/text-likeness'
import { whySame } from '../../../src/core/matching/why'
import { english } from '../../../src/server/lexicon/lexicon'
import { Garden } from '../gardens'
import { labelledMerges, qualityOf } from './labelled'

const ENGLISH = english()

const tree = (...lines: string[]): TextTree => {
  const open: number[] = []
  const parents = lines.map((line, node) => {
    const level = line.search(/\S/)
    open.length = level
    open[level] = node
    return open[level - 1] ?? -1
  })
  return { texts: lines.map((line) => line.trim()), parents }
}

const matched = (a: TextTree, b: TextTree, lexicon = ENGLISH) =>
  matchMaps(a, b, lexicon).map((match) => `${a.texts[match.a]} = ${b.texts[match.b]}: ${match.class}`)

describe('texts', () => {
  const likeness = (a: string, b: string) => {
    const texts = [comparedText(a), comparedText(b)] as const
    return textLikeness(texts[0], texts[1], new Comparison(texts, ENGLISH)).text
  }
  test.each([
    ['Tickets for the train', 'Train tickets'],
    ['Costs', 'Expenses'],
    ['Refridgerator', 'Refrigerator'],
    ['Human resources', 'HR'],
    ['Dept. of roads', 'Department of roads'],
    ['Room one', 'First room'],
  ])('%s is like %s', (a, b) => expect(likeness(a, b)).toBeGreaterThanOrEqual(0.6))
  test.each([
    ['Well 23', 'Well 31'],
    ['Income', 'Expenses'],
    ['Allowed on site', 'Not allowed on site'],
    ['Inside temperature', 'Outside temperature'],
    ['Peas', 'Weirs'],
  ])('%s is not like %s', (a, b) => expect(likeness(a, b)).toBeLessThan(0.55))
})

describe('maps', () => {
  test('what is said in other words is found by what hangs on it, and told why', () => {
    const a = tree('Trip', ' What it takes', '  Hotel', '  Train tickets', ' Food')
    const b = tree('Our trip', ' Expenses', '  Hotels', '  Tickets for the train', '  Museum', ' Provisions')
    expect(matched(a, b)).toEqual([
      'Trip = Our trip: same',
      'What it takes = Expenses: likely',
      'Hotel = Hotels: same',
      'Train tickets = Tickets for the train: same',
      'Food = Provisions: likely',
    ])
    const [, costs, , , food] = matchMaps(a, b, ENGLISH)
    expect(whySame(costs!, a, b, ENGLISH)).toContain('all of what is below them agrees')
    expect(whySame(food!, a, b, ENGLISH)).toContain('food ≈ provisions')
  })

  test('a branch that moved is found, and each topic is in one pair at most', () => {
    const a = tree('Garden', ' Spring', '  Sow peas', '  Prune the roses', ' Tools', '  Spade')
    const b = tree('Garden', ' Tools', '  Spring', '   Sow peas', '   Prune the roses', '  Spade', '  Spade')
    const found = matchMaps(a, b, ENGLISH)
    expect(new Set(found.map((match) => match.a)).size).toBe(found.length)
    expect(new Set(found.map((match) => match.b)).size).toBe(found.length)
    expect(matched(a, b)).toContain('Spring = Spring: same')
    expect(matched(a, b)).toContain('Prune the roses = Prune the roses: same')
  })

  test('without a lexicon equal words still count', () => {
    const map = tree('Garden', ' Peas', ' Beans')
    expect(matched(map, map, Lexicon.EMPTY)).toHaveLength(3)
  })

  test('a map of thousands is matched with its copy by what is near, not by all pairs', () => {
    const lines = Array.from({ length: 900 }, (_, i) => [
      ` Bed ${i}`,
      `  Row of ${'abcdefghij'[i % 10]}${i} plants`,
    ]).flat()
    const map = tree('Garden', ...lines)
    const found = matchMaps(map, map, ENGLISH)
    expect(found.filter(({ a, b }) => a === b)).toHaveLength(map.texts.length)
  })
})

test('the labelled merges: of the half that was kept apart nearly all pairs are found, and nearly none is wrong', () => {
  const kept = labelledMerges().filter((_, i) => i % 2 === 1)
  const { same, either } = qualityOf(kept, ({ a, b }) => matchMaps(a, b, ENGLISH))
  expect(either.precision).toBeGreaterThan(0.95)
  expect(either.recall).toBeGreaterThan(0.95)
  expect(same.precision).toBeGreaterThan(0.75)
  expect(same.recall).toBeGreaterThan(0.65)
})

test('the best assignment has the largest total of all', () => {
  const rows = fc.array(fc.array(fc.integer({ min: 0, max: 9 }), { minLength: 4, maxLength: 4 }), {
    minLength: 1,
    maxLength: 5,
  })
  fc.assert(
    fc.property(rows, (weights) => {
      const paired = bestAssignment(weights.map((row) => Float64Array.from(row)))
      const total = paired.reduce((sum, column, row) => sum + (column < 0 ? 0 : weights[row]![column]!), 0)
      const best = (row: number, taken: number): number =>
        row === weights.length
          ? 0
          : Math.max(
              best(row + 1, taken),
              ...weights[row]!.map((weight, column) =>
                taken & (1 << column) ? 0 : weight + best(row + 1, taken | (1 << column)),
              ),
            )
      expect(total).toBe(best(0, 0))
      expect(new Set(paired.filter((column) => column >= 0)).size).toBe(paired.filter((column) => column >= 0).length)
    }),
  )
})

test('merging a map with its own copy, combined, adds nothing', () => {
  const lines = fc.array(fc.tuple(fc.nat(3), fc.nat(12)), { minLength: 1, maxLength: 40 })
  fc.assert(
    fc.property(lines, (steps) => {
      const garden = new Garden()
      let depth = 0
      const text = steps
        .map(([up, word]) => {
          depth = Math.max(0, depth + 1 - up)
          return `${'  '.repeat(depth)}${['peas', 'beans', 'water the beds', 'weed', 'path 1', 'path 2'][word % 6]} ${word > 6 ? 'early' : ''}`
        })
        .join('\n')
      const [target, copy] = [garden.grow(`Garden\n${text}`), garden.grow(`Garden\n${text}`)]
      const before = garden.text(target)
      const plan = planMerge(garden.records, target, [copy], 'combined', { lexicon: ENGLISH, said: new Map() })
      const { report } = garden.do((r, ids) => mergeMaps(r, { plan }, ids))
      expect(report.counts.added).toBe(0)
      expect(garden.text(target)).toBe(before)
    }),
    { numRuns: 60 },
  )
})

test('what a person has said goes before what is found', () => {
  const garden = new Garden()
  const target = garden.grow('Garden\nCosts\n  Seeds\nPaths')
  const source = garden.grow('Plot\nExpenses\n  Seeds\nWays')
  const child = (map: string, text: string) =>
    [...garden.records.topicsOf(map)].find((topic) => topic.text === text)!.id
  const said = new Map([
    [child(source, 'Ways'), child(target, 'Paths')],
    [child(source, 'Expenses'), null],
  ])
  const { decisions } = planMerge(garden.records, target, [source], 'combined', { lexicon: ENGLISH, said })
  const of = (text: string) => decisions.find((decision) => decision.source === child(source, text))
  expect(of('Ways')).toMatchObject({ act: 'join', into: child(target, 'Paths'), why: 'as you said' })
  expect(of('Expenses')).toMatchObject({ act: 'add' })
  expect(of('Expenses')).not.toHaveProperty('likely')
})
