import { createCipheriv, createDecipheriv, hkdfSync, randomBytes } from 'node:crypto'

/** What is sealed begins with this; the number tells how. */
const MARK = 'sealed1:'
/** Fewest characters of the server's key. */
const SHORTEST_KEY = 32
const [IV_BYTES, TAG_BYTES] = [12, 16]

const given = process.env.FOLVET_KEY
if (given !== undefined && given.length < SHORTEST_KEY)
  throw new Error(`FOLVET_KEY has to be at least ${SHORTEST_KEY} characters long.`)
const key = given === undefined ? null : new Uint8Array(hkdfSync('sha256', given, '', 'words for other servers', 32))

/** Whether this server has a key with which it can keep words that only other servers may read. */
export const canSeal = key !== null

/**
 * Words for another server, such as a password, as they are stored: encrypted with the server's key (AES-256-GCM, NIST SP 800-38D) and
 * bound to what they belong to, so that they open nowhere else. No words stay none.
 */
export function seal(words: string, belongsTo: string): string {
  if (words === '') return ''
  if (!key) throw new Error('There is no key to seal with.')
  const iv = randomBytes(IV_BYTES)
  const cipher = createCipheriv('aes-256-gcm', key, iv).setAAD(Buffer.from(belongsTo))
  const body = Buffer.concat([cipher.update(words, 'utf8'), cipher.final()])
  return MARK + Buffer.concat([iv, cipher.getAuthTag(), body]).toString('base64url')
}

export const isSealed = (stored: string): boolean => stored.startsWith(MARK)

/** The words that were sealed; null where they cannot be read: with another key, for something else, or damaged. */
export function unseal(stored: string, belongsTo: string): string | null {
  if (!key || !isSealed(stored)) return null
  const bytes = Buffer.from(stored.slice(MARK.length), 'base64url')
  if (bytes.length < IV_BYTES + TAG_BYTES) return null
  try {
    const decipher = createDecipheriv('aes-256-gcm', key, bytes.subarray(0, IV_BYTES), { authTagLength: TAG_BYTES })
    decipher.setAAD(Buffer.from(belongsTo)).setAuthTag(bytes.subarray(IV_BYTES, IV_BYTES + TAG_BYTES))
    return decipher.update(bytes.subarray(IV_BYTES + TAG_BYTES), undefined, 'utf8') + decipher.final('utf8')
  } catch {
    return null
  }
}
