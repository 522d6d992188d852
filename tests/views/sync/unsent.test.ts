import { afterEach, beforeEach, expect, test, vi } from 'vitest'
import type { Change } from '../../../src/core/changes/edit'
import {
  collectionsUnsent,
  forgetUnsent,
  forgetUnsentOf,
  keepUnsent,
  nextOrder,
  unsentOf,
} from '../../../src/views/sync/unsent'
import { storageOfItsOwn } from '../storage'

const change = (id: string) => ({ id, label: `Add ${id}`, edits: [] }) as unknown as Change
const kept = (id: string, order: number, more = {}) => ({
  collection: 'Garden',
  person: 'Ada',
  order,
  change: change(id),
  ...more,
})

beforeEach(() => void vi.stubGlobal('localStorage', storageOfItsOwn()))
afterEach(() => void vi.unstubAllGlobals())

test('without a database in the browser, or before it has written, changes are kept at once and found again in order', async () => {
  // Nobody waits, as when the page goes.
  const late = [kept('second', 2), kept('first', 1), kept('refused', 3, { aside: 'It is gone.' })].map(keepUnsent)
  expect(await unsentOf('Garden', 'Ada')).toEqual({
    changes: [change('first'), change('second')],
    asides: [{ change: change('refused'), message: 'It is gone.' }],
  })
  expect(await collectionsUnsent('Ada')).toEqual(['Garden'])
  expect(await collectionsUnsent('Ben')).toEqual([])
  await Promise.all(late)
  expect(await unsentOf('Garden', 'Ben')).toEqual({ changes: [], asides: [] })
  expect(await unsentOf('Shed', 'Ada')).toEqual({ changes: [], asides: [] })
  await forgetUnsent('first').catch(() => undefined)
  expect((await unsentOf('Garden', 'Ada')).changes).toEqual([change('second')])
})

test('who leaves nothing behind leaves what others wrote', async () => {
  await Promise.all([keepUnsent(kept('mine', 1)), keepUnsent(kept('theirs', 2, { person: 'Ben' }))])
  await forgetUnsentOf('Ada')
  expect(await collectionsUnsent('Ada')).toEqual([])
  expect((await unsentOf('Garden', 'Ben')).changes).toEqual([change('theirs')])
})

test('where nothing can be kept, that is told', async () => {
  vi.stubGlobal('localStorage', storageOfItsOwn(10))
  await expect(keepUnsent(kept('first', 1))).rejects.toThrow()
})

test('what comes later is later, also where the clock of the computer was set back', () => {
  vi.useFakeTimers({ now: 2_000_000 })
  const before = nextOrder()
  vi.setSystemTime(1_000)
  expect(nextOrder()).toBeGreaterThan(before)
  // As another tab finds it, or the same one loaded anew.
  expect(Number(localStorage.getItem('folvet-order'))).toBeGreaterThan(before)
  vi.useRealTimers()
})
