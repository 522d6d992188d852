import { afterEach, beforeEach, expect, test, vi } from 'vitest'
import { Calm } from '../../../src/views/app/calm'

/** The frames of a page that is seen; in one that is not, nobody paints. */
let frames: (() => void)[] = []
const paint = () => {
  for (const frame of frames.splice(0)) frame()
}
beforeEach(() => {
  vi.useFakeTimers()
  frames = []
  vi.stubGlobal('requestAnimationFrame', (frame: () => void) => frames.push(frame))
})
afterEach(() => {
  vi.useRealTimers()
  vi.unstubAllGlobals()
})

test('those who can wait are told once of any number of changes, after the next frame, with the last value', () => {
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
  paint()
  vi.advanceTimersByTime(1)
  expect(told).toEqual([])
  paint()
  vi.advanceTimersByTime(1)
  expect([told, calm.snapshot()]).toEqual([[5], 5])
  vi.runAllTimers()
  expect(told).toEqual([5])
  value = 7
  changed()
  // A page in the background has no frames, and follows all the same.
  vi.runAllTimers()
  expect(told).toEqual([5, 7])
  stop()
  value = 9
  changed()
  vi.runAllTimers()
  expect([told, calm.snapshot()]).toEqual([[5, 7], 9])
})
