import { expect, test } from 'vitest'
import { insertBetween } from '../../../src/core/commands/insert-between'
import { drawnPlot } from '../drawn-plot'

test('a topic is put between branches and the one on which they hang', () => {
  const { garden, map } = drawnPlot()
  const topics = [garden.topic('Sow peas'), garden.topic('Prune')]
  garden.do((r, m) => insertBetween(r, { topics, text: 'March' }, m))
  expect(garden.text(map)).toContain('  - Spring\n    - March\n      - Sow peas\n      - Prune\n')
  const crossing = { topics: [garden.topic('Prune'), garden.topic('Summer')], text: '' }
  expect(() => garden.do((r, m) => insertBetween(r, crossing, m))).toThrow('hang on the same topic')
  expect(() => garden.do((r, m) => insertBetween(r, { topics: [garden.topic('Garden')], text: '' }, m))).toThrow('Only')
})
