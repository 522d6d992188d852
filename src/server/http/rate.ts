import { RateLimiterMemory } from 'rate-limiter-flexible'

/** Writes by one person, and attempts to sign in from one place, counted in this process. */
const writes = new RateLimiterMemory({ points: 6_000, duration: 10 })
const attempts = new RateLimiterMemory({ points: 10, duration: 60 })
const guests = new RateLimiterMemory({ points: 60, duration: 60 })

const within = (limiter: RateLimiterMemory, key: string): Promise<boolean> =>
  limiter.consume(key).then(
    () => true,
    () => false,
  )

export const allowWrite = (person: string): Promise<boolean> => within(writes, person)
export const allowAttempt = (place: string): Promise<boolean> => within(attempts, place)
export const allowGuest = (place: string): Promise<boolean> => within(guests, place)
