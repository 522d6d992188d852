import { expect, test } from 'vitest'
import { addTopic } from '../../../src/core/commands/add-topic'
import { foldTopics } from '../../../src/core/commands/fold-topics'
import { TopicId } from '../../../src/core/records/ids'
import { plot } from '../gardens'

test('a topic is added first, behind a sibling or last, and shows where it was folded', () => {
  const { garden, map } = plot()
  const spring = garden.topic('Spring')
  const add = (after: TopicId | null | 'last', text: string) =>
    garden.do((r, n) => addTopic(r, { parent: spring, after, text }, n))
  garden.do((r, n) => foldTopics(r, { topics: [spring], folded: true }, n))
  add(null, 'Dig')
  add(garden.topic('Sow peas'), 'Water')
  const { select, change } = add('last', 'Mulch')
  expect(garden.text(map)).toContain('- Dig\n    - Sow peas\n    - Water\n    - Prune\n    - Mulch')
  expect(garden.records.need('topic', spring).folded).toBe(false)
  expect([select, change.label]).toEqual([[garden.topic('Mulch')], 'Add Mulch'])
})

test('a topic is refused below one that is gone', () => {
  const { garden } = plot()
  const parent = TopicId.parse('00000000-0000-7000-8000-00000000dead')
  const add = () => garden.do((r, n) => addTopic(r, { parent, after: 'last', text: 'Dig' }, n))
  expect(add).toThrow('The topic that this one should hang on is gone.')
})
