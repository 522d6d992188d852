import { afterEach, beforeEach, expect, test, vi } from 'vitest'
import { Calm } from '../../../src/views/app/calm'

beforeEach(() => void vi.useFakeTimers())
afterEach(() => void vi.useRealTimers())

test('those who can wait are told once of any number of changes, a moment later, with the last value', () => {
  let value = 0
  let changed = () => {}
  const calm = new Calm(
    (listener) => {
      changed = listener
    },
    () => value,
  )
  const told: number[] = []
  const stop = calm.subscribe(() => told.push(calm.snapshot()))
  for (value = 1; value < 5; value++) changed()
  expect([told, calm.snapshot()]).toEqual([[], 0])
  vi.runAllTimers()
  expect([told, calm.snapshot()]).toEqual([[5], 5])
  stop()
  value = 9
  changed()
  vi.runAllTimers()
  expect([told, calm.snapshot()]).toEqual([[5], 9])
})
