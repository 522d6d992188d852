import { expect, test } from 'vitest'
import { setMapLayout } from '../../../src/core/commands/layouts'
import { type Step, stepTopic } from '../../../src/core/commands/step-topic'
import { sideOf } from '../../../src/core/records/place'
import { Garden, plot } from '../gardens'

function planted(layout: 'both' | 'right' | 'left') {
  const garden = new Garden()
  const map = garden.grow('Garden\na\nb\nc\nd')
  garden.do((r, m) => setMapLayout(r, { map, layout }, m))
  const step = (text: string, where: Step) =>
    garden.do((r, m) => stepTopic(r, { topic: garden.topic(text), step: where }, m))
  const order = () =>
    garden.records
      .children(garden.topic('Garden'))
      .map(({ text }) => text)
      .join('')
  return { garden, step, order }
}

test('on a map that is set to one side, a step goes to the next topic whatever sides are remembered', () => {
  const { step, order } = planted('right')
  step('d', 'up')
  expect(order()).toBe('abdc')
  step('d', 'up')
  step('d', 'up')
  expect(order()).toBe('dabc')
  expect(() => step('d', 'up')).toThrow('It is the first already.')
  step('d', 'down')
  expect(order()).toBe('adbc')
})

test('on a map with two sides a step stays on its side, and left and right go across', () => {
  const { garden, step } = planted('both')
  const side = (text: string) => sideOf(garden.records.need('topic', garden.topic(text)))
  expect([side('a'), side('b'), side('c'), side('d')]).toEqual(['right', 'right', 'left', 'left'])
  expect(() => step('c', 'up')).toThrow('It is the first already.')
  step('b', 'left')
  expect(side('b')).toBe('left')
})

test('on a map that grows left, left goes in and right goes out', () => {
  const { garden, step } = planted('left')
  step('b', 'left')
  expect(garden.records.children(garden.topic('a')).map(({ text }) => text)).toEqual(['b'])
  step('b', 'right')
  expect(garden.records.children(garden.topic('a'))).toEqual([])
})

test('a topic steps up, out, in and to the other side', () => {
  const { garden, map } = plot()
  const step = (topic: string, direction: Parameters<typeof stepTopic>[1]['step']) =>
    garden.do((records, newIds) => stepTopic(records, { topic: garden.topic(topic), step: direction }, newIds))
  step('Prune', 'up')
  step('Dwarf', 'out')
  step('Climbing', 'out')
  step('Climbing', 'in')
  expect(garden.text(map)).toContain(
    '  - Spring\n    - Prune\n    - Sow peas\n  - Summer\n    - Pick beans\n      - Climbing\n    - Dwarf',
  )
  const before = sideOf(garden.records.need('topic', garden.topic('Spring')))
  step('Spring', before === 'left' ? 'right' : 'left')
  expect(sideOf(garden.records.need('topic', garden.topic('Spring')))).not.toBe(before)
  expect(() => step('Garden', 'up')).toThrow('hangs on nothing')
})
