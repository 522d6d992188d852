import { expect, test } from 'vitest'
import { moveTopics } from '../../../src/core/commands/move-topics'
import { plot } from '../gardens'

test('moved branches hang behind the sibling that is named, in the order given', () => {
  const { garden, map } = plot()
  const topics = [garden.topic('Climbing'), garden.topic('Autumn')]
  garden.do((records, newIds) =>
    moveTopics(
      records,
      { topics, parent: garden.topic('Spring'), after: garden.topic('Sow peas'), side: null },
      newIds,
    ),
  )
  expect(garden.text(map)).toBe(
    '- Garden\n  - Spring\n    - Sow peas\n    - Climbing\n    - Autumn\n    - Prune\n  - Summer\n    - Pick beans\n      - Dwarf',
  )
})

test('a topic cannot hang below itself, and the root cannot move', () => {
  const { garden } = plot()
  const move = (topic: string, parent: string) => () =>
    garden.do((records, newIds) =>
      moveTopics(
        records,
        { topics: [garden.topic(topic)], parent: garden.topic(parent), after: null, side: null },
        newIds,
      ),
    )
  expect(move('Summer', 'Dwarf')).toThrow('A topic cannot hang below itself.')
  expect(move('Garden', 'Dwarf')).toThrow('The root of a map stays where it is.')
})
