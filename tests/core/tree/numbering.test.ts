import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { fixNumber, fixNumbers, numberBranch, numberMap, takeTypedNumbers } from '../../../src/core/commands/numbering'
import { layoutMap } from '../../../src/core/layout/map-layout'
import type { MapId } from '../../../src/core/records/ids'
import {
  freeNumberAfter,
  lettersOf,
  numberBelow,
  numbersOf,
  typedNumber,
  typedNumbers,
} from '../../../src/core/tree/numbering'
import { CONTEXT, Garden } from '../gardens'

/** Every topic of a map with the number that it shows. */
const numbered = (garden: Garden, map: MapId) =>
  layoutMap(garden.records, map, CONTEXT).boxes.map(({ number, topic }) => `${number ?? ''} ${topic.text}`.trim())

describe('the schemes', () => {
  test('write the numbers of a path', () => {
    const path = (scheme: 'decimal' | 'turns' | 'sections', ...counts: number[]) =>
      counts.reduce((above, count) => numberBelow(scheme, above, count), '')
    expect(path('decimal', 1, 2, 3)).toBe('1.2.3')
    expect(path('turns', 1, 1, 1, 28)).toBe('1a1ab')
    expect(path('sections', 1, 1, 1, 1, 1, 1)).toBe('1.1.1-1a1')
  })

  test('letters count on after z, each number once', () => {
    expect([1, 26, 27, 52, 53, 702, 703].map(lettersOf)).toEqual(['a', 'z', 'aa', 'az', 'ba', 'zz', 'aaa'])
    fc.assert(fc.property(fc.nat(20_000), fc.nat(20_000), (a, b) => (lettersOf(a) === lettersOf(b)) === (a === b)))
  })

  test('siblings are counted past those with a fixed number, and never get it too', () => {
    const siblings = [null, '2', null, '1a', null].map((number) => ({ number }))
    expect(numbersOf(siblings, { scheme: 'decimal', above: '' })).toEqual(['1', '2', '3', '1a', '4'])
    expect(numbersOf(siblings, null)).toEqual([null, '2', null, '1a', null])
  })

  test('a free number between two fixed ones goes on in letters and digits', () => {
    expect(freeNumberAfter('1', new Set(['1', '2']))).toBe('1a')
    expect(freeNumberAfter('1', new Set(['1', '1a', '2']))).toBe('1b')
    expect(freeNumberAfter('1a', new Set(['1a']))).toBe('1a1')
    expect(freeNumberAfter(null, new Set(['1']))).toBe('2')
  })

  test('typed numbers are told from plain counts', () => {
    expect(typedNumber('1.2 Dams')).toEqual({ number: '1.2', text: 'Dams' })
    expect(typedNumber('1a1) Dams')).toEqual({ number: '1a1', text: 'Dams' })
    expect(typedNumber('1.1.1-1a Dams')).toEqual({ number: '1.1.1-1a', text: 'Dams' })
    expect(typedNumber('3. Dams')).toEqual({ number: '3', text: 'Dams' })
    for (const text of ['48 wells in seven lines', 'Dams 3.', '3.', '2026-05-01', ''])
      expect(typedNumber(text)).toBeNull()
  })

  test('a bare number counts where a neighbour goes on from it, else it counts things', () => {
    const numbers = (...texts: string[]) => typedNumbers(texts).map((typed) => typed?.number ?? null)
    expect(numbers('1 Peas', '2 Beans', 'Leek', '48 wells', '1. Kale')).toEqual(['1', '2', null, null, '1'])
    expect(numbers('7 lines of wells', '9 boards')).toEqual([null, null])
    expect(numbers('3 Dams')).toEqual([null])
  })
})

describe('numbers on a map', () => {
  test('are computed from the order, from the map or from any topic down, and can be fixed', () => {
    const garden = new Garden()
    const map = garden.grow('Garden\nSpring\n  Sow\n  Prune\nSummer\n  Pick')
    garden.do((records, newIds) => numberMap(records, { map, scheme: 'turns' }, newIds))
    expect(numbered(garden, map)).toEqual(['Garden', '1 Spring', '1a Sow', '1b Prune', '2 Summer', '2a Pick'])
    garden.do((records, newIds) => fixNumber(records, { topic: garden.topic('Spring'), number: '7' }, newIds))
    expect(numbered(garden, map)).toEqual(['Garden', '7 Spring', '7a Sow', '7b Prune', '1 Summer', '1a Pick'])
    garden.do((records, newIds) => numberMap(records, { map, scheme: null }, newIds))
    garden.do((records, newIds) =>
      numberBranch(records, { topics: [garden.topic('Summer')], scheme: 'decimal' }, newIds),
    )
    expect(numbered(garden, map)).toEqual(['Garden', '7 Spring', 'Sow', 'Prune', 'Summer', '1 Pick'])
  })

  test('that were typed become fixed or counted ones', () => {
    const pages = 'Garden\n1.1 Spring\n1.2 Summer\n  48 wells'
    for (const [keep, expected] of [
      [true, ['Garden', '1.1 Spring', '1.2 Summer', '48 wells']],
      [false, ['Garden', '1 Spring', '2 Summer', '2.1 48 wells']],
    ] as const) {
      const garden = new Garden()
      const map = garden.grow(pages)
      garden.do((records, newIds) => takeTypedNumbers(records, { topic: garden.topic('Garden'), keep }, newIds))
      expect(numbered(garden, map)).toEqual(expected)
    }
  })
  test('are fixed as they are counted for many at once, and counted again', () => {
    const garden = new Garden()
    const map = garden.grow('Garden\nSpring\n  Sow\n  Prune')
    garden.do((records, newIds) => numberMap(records, { map, scheme: 'turns' }, newIds))
    const [sow, prune] = [garden.topic('Sow'), garden.topic('Prune')]
    const numbers = [
      { topic: sow, number: '1a' },
      { topic: prune, number: '1b' },
    ]
    garden.do((records, newIds) => fixNumbers(records, { numbers }, newIds))
    garden.do((records, newIds) => numberMap(records, { map, scheme: null }, newIds))
    expect(numbered(garden, map)).toEqual(['Garden', 'Spring', '1a Sow', '1b Prune'])
    garden.do((records, newIds) =>
      fixNumbers(records, { numbers: numbers.map((each) => ({ ...each, number: null })) }, newIds),
    )
    expect(numbered(garden, map)).toEqual(['Garden', 'Spring', 'Sow', 'Prune'])
  })
})
