import { expect, test } from 'vitest'
import { deleteTopics } from '../../../src/core/commands/delete-topics'
import { plot } from '../gardens'

test('the root of a map is kept', () => {
  const { garden } = plot()
  expect(() =>
    garden.do((records, newIds) => deleteTopics(records, { topics: [garden.topic('Garden')] }, newIds)),
  ).toThrow('A map keeps its root topic.')
})
