import { hash, verify } from '@node-rs/argon2'
import pLimit from 'p-limit'
import { Failure } from '../http/failure'

/** Parameters after the OWASP Password Storage Cheat Sheet, 2024: argon2id, 19 MiB, two passes. */
const PARAMETERS = { memoryCost: 19_456, timeCost: 2, parallelism: 1 } as const

/** Hashing is made to be slow: few at a time, and no more waiting than are done in a second or two. */
const turns = pLimit(2)
const MOST_WAITING = 60

function inTurn<Result>(work: () => Promise<Result>): Promise<Result> {
  if (turns.pendingCount >= MOST_WAITING)
    throw new Failure(503, 'Too many people are signing in just now. Please try again in a moment.')
  return turns(work)
}

export const hashPassword = async (password: string): Promise<string> => inTurn(() => hash(password, PARAMETERS))

/** Hash of no password: verified against where an address is unknown, so that the answer takes as long. */
const NOBODY = hashPassword(crypto.randomUUID())

export async function passwordMatches(passwordHash: string | null, password: string): Promise<boolean> {
  const against = passwordHash ?? (await NOBODY)
  const matches = await inTurn(() => verify(against, password).catch(() => false))
  return matches && passwordHash !== null
}
