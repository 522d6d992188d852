import { expect, test } from 'vitest'
import { addTopic } from '../../../src/core/commands/add-topic'
import { fixNumber, numberBranch } from '../../../src/core/commands/numbering'
import { drawnPlot } from '../drawn-plot'

test('beside fixed numbers the next free one is proposed, and beneath one its first', () => {
  const { garden } = drawnPlot()
  const [spring, peas, prune] = ['Spring', 'Sow peas', 'Prune'].map((text) => garden.topic(text))
  garden.do((r, m) => fixNumber(r, { topic: peas!, number: '1' }, m))
  garden.do((r, m) => fixNumber(r, { topic: prune!, number: '2' }, m))
  const add = (parent: typeof spring, after: typeof spring | 'last') => {
    const { select } = garden.do((r, m) => addTopic(r, { parent: parent!, after: after!, text: 'x' }, m))
    return garden.records.need('topic', select[0]!)
  }
  const between = add(spring, peas)
  expect(between.number).toBe('1a')
  expect(add(between.id, 'last').number).toBe('1a1')
  expect(add(spring, 'last').number).toBe('3')
  expect(add(garden.topic('Summer'), 'last').number).toBeNull()
  garden.do((r, m) => numberBranch(r, { topics: [spring!], scheme: 'decimal' }, m))
  expect(add(spring, peas).number).toBeNull()
})
