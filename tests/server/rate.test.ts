import { expect, test } from 'vitest'
import { allowAttempt, allowGuest, allowWrite } from '../../src/server/http/rate'

/** How many of so many calls in a row are let through. */
async function letThrough(calls: number, allow: () => Promise<boolean>): Promise<number> {
  let count = 0
  for (let i = 0; i < calls; i++) if (await allow()) count++
  return count
}

test('each limit lets its number through and no more, and one person does not use up what another may', async () => {
  expect(await letThrough(6_010, () => allowWrite('first'))).toBe(6_000)
  expect(await allowWrite('second')).toBe(true)
  expect(await letThrough(12, () => allowAttempt('first@folvet.example'))).toBe(10)
  expect(await allowAttempt('second@folvet.example')).toBe(true)
  expect(await letThrough(63, () => allowGuest('all'))).toBe(60)
})
