import { describe, expect, test } from 'vitest'
import { foldAllBut, foldToLevel } from '../../../src/core/commands/fold-topics'
import { type Garden, plot } from '../gardens'

describe('folding', () => {
  const shown = (garden: Garden) =>
    [...garden.records.all('topic')].filter(({ folded }) => folded).map(({ text }) => text)

  test('to a level, to everything, and all but the way to a topic', () => {
    const { garden, map } = plot()
    garden.do((records, newIds) => foldToLevel(records, { map, level: 1 }, newIds))
    expect(shown(garden)).toEqual(['Spring', 'Summer', 'Pick beans'])
    garden.do((records, newIds) => foldToLevel(records, { map, level: null }, newIds))
    expect(shown(garden)).toEqual([])
    garden.do((records, newIds) => foldAllBut(records, { topic: garden.topic('Pick beans') }, newIds))
    expect(shown(garden)).toEqual(['Spring'])
  })
})
