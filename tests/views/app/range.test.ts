import { expect, test } from 'vitest'
import { rangeBetween } from '../../../src/views/app/range'

test('a range goes from what was chosen last to what is pressed, either way, and is one thing where nothing was chosen', () => {
  const order = ['a', 'b', 'c', 'd']
  expect(rangeBetween(order, 'b', 'd')).toEqual(['b', 'c', 'd'])
  expect(rangeBetween(order, 'd', 'b')).toEqual(['b', 'c', 'd'])
  expect(rangeBetween(order, undefined, 'c')).toEqual(['c'])
  expect(rangeBetween(order, 'gone', 'c')).toEqual(['c'])
})
