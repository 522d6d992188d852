import { expect, test } from 'vitest'
import { allowAttempt, allowGuest, allowWork, placeOf } from '../../src/server/http/rate'

/** How many of so many calls in a row are let through. */
async function letThrough(calls: number, allow: () => Promise<boolean>): Promise<number> {
  let count = 0
  for (let i = 0; i < calls; i++) if (await allow()) count++
  return count
}

test('each limit lets its number through and no more, and one person does not use up what another may', async () => {
  expect(await letThrough(6_010, () => allowWork('first', 1))).toBe(6_000)
  expect(await letThrough(40, () => allowWork('second', 200))).toBe(30)
  expect(await allowWork('third', 1)).toBe(true)
  expect(await letThrough(123, () => allowGuest('192.0.2.1'))).toBe(120)
  expect(await allowGuest('192.0.2.2')).toBe(true)
})

test('wrong attempts from one place keep nobody out elsewhere, and one place has a limit over all addresses', async () => {
  expect(await letThrough(12, () => allowAttempt('first@folvet.example', '192.0.2.1'))).toBe(10)
  expect(await allowAttempt('first@folvet.example', '192.0.2.2')).toBe(true)
  expect(await allowAttempt('second@folvet.example', '192.0.2.1')).toBe(true)
  let tried = 0
  expect(await letThrough(120, () => allowAttempt(`guess-${tried++}@folvet.example`, '192.0.2.3'))).toBe(100)
})

test('a customer with a whole IPv6 network counts as one place', () => {
  expect(placeOf('2001:db8:1:2:3:4:5:6')).toBe(placeOf('2001:db8:1:2:ffff::1'))
  expect(placeOf('2001:db8:1:3::1')).not.toBe(placeOf('2001:db8:1:2::1'))
  expect(placeOf('192.0.2.1')).toBe('192.0.2.1')
})
