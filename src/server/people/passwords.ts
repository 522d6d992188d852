import { hash, verify } from '@node-rs/argon2'

/** Parameters after the OWASP Password Storage Cheat Sheet, 2024: argon2id, 19 MiB, two passes. */
const PARAMETERS = { memoryCost: 19_456, timeCost: 2, parallelism: 1 } as const

export const hashPassword = (password: string): Promise<string> => hash(password, PARAMETERS)

/** Hash of no password: verified against where an address is unknown, so that the answer takes as long. */
const NOBODY = hashPassword(crypto.randomUUID())

export async function passwordMatches(passwordHash: string | null, password: string): Promise<boolean> {
  const matches = await verify(passwordHash ?? (await NOBODY), password).catch(() => false)
  return matches && passwordHash !== null
}
