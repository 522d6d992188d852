import { RateLimiterMemory } from 'rate-limiter-flexible'
import { Failure } from './failure'

/** Work asked for by one person; what costs more counts for more. 6,000 small changes in ten seconds, 30 large jobs. */
const work = new RateLimiterMemory({ points: 6_000, duration: 10 })
/**
 * Attempts to sign in: with one address from one place, so that nobody can keep the owner of an address out from
 * elsewhere, and from one place with whatever address.
 */
const attempts = new RateLimiterMemory({ points: 10, duration: 60 })
const attemptsFromPlace = new RateLimiterMemory({ points: 100, duration: 60 })
const guests = new RateLimiterMemory({ points: 120, duration: 60 })

const within = (limiter: RateLimiterMemory, key: string, points = 1): Promise<boolean> =>
  limiter.consume(key, points).then(
    () => true,
    () => false,
  )

/** The part of a network address that one customer of a network has to themselves: of IPv6, the first 64 bits. */
export const placeOf = (from: string): string =>
  from.includes(':') && !from.includes('.') ? from.split(':').slice(0, 4).join(':') : from

export const allowWork = (person: string, cost: number): Promise<boolean> => within(work, person, cost)
export const allowGuest = (from: string): Promise<boolean> => within(guests, placeOf(from))
export const allowAttempt = async (address: string, from: string): Promise<boolean> =>
  (await within(attemptsFromPlace, placeOf(from))) && within(attempts, `${address} ${placeOf(from)}`)

/** Throws a Failure where somebody asks for too much at once. */
export async function chargeFor(person: string, cost: number): Promise<void> {
  if (!(await allowWork(person, cost))) throw new Failure(429, 'Too much at once. Wait a moment and try again.')
}
