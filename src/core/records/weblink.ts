import { z } from 'zod'
import { trimEndOf } from '../text/trim-end'
import { TopicId, WeblinkId } from './ids'
import { defineKind, inside } from './kind'
import { Rank } from './place'
import { cutText, storedText, title } from './text'

/** Longest address, in UTF-16 code units. */
export const MAX_ADDRESS = 2_000

/** Addresses that may be followed from a page: nothing that runs as script. */
export const isFollowable = (url: string): boolean => /^(https?:\/\/[^\s/?#]+|mailto:[^\s@]+@[^\s@]+)/i.test(url)

const PLAIN_MAIL = /^[^\s@:/]+@[^\s@/]+\.[^\s@/.]+$/

/** The address that a text is and nothing else, to be followed: of the web, or of mail, also where it is written plain. Null for any other text. */
export function addressIn(text: string): string | null {
  const written = text.trim()
  if (/\s/.test(written)) return null
  return isFollowable(written) ? written : PLAIN_MAIL.test(written) ? `mailto:${written}` : null
}

/** A named address on the web, carried by a topic. */
export const WeblinkRecord = z.strictObject({
  id: WeblinkId,
  topic: TopicId,
  url: storedText(MAX_ADDRESS).refine(isFollowable, 'A web link begins with http://, https:// or mailto:.'),
  title,
  rank: Rank,
  /** Whether somebody has read it and said so. */
  read: z.boolean().default(false),
  trashed: z.boolean(),
})
export type WeblinkRecord = z.infer<typeof WeblinkRecord>

/** What is left to read of an address: without the scheme, and cut. */
export const readableAddress = (url: string): string =>
  cutText(trimEndOf(url.trim().replace(/^(?:https?:\/\/|mailto:)(?:www\.)?/i, ''), '/?#'), 80)

/** What a page is likely called, by its address: the words of its last part, else whose it is. Empty for what is no address. */
export function nameFromAddress(address: string): string {
  const [, scheme, host = '', path = ''] =
    /^\s*(https?:\/\/|mailto:)?(?:www\.)?([^\s/?#]+)([^?#]*)/i.exec(address) ?? []
  if (!host.includes('.')) return ''
  if (scheme?.toLowerCase() === 'mailto:' || host.includes('@')) return host
  const last = trimEndOf(path.trim(), '/').split('/').at(-1) ?? ''
  const words = decoded(last)
    .replace(/\.[a-z0-9]{1,5}$/i, '')
    .replace(/[-_+\s]+/g, ' ')
    .trim()
  // A number, or a key of a database, is no name.
  if (!/\p{L}{3}/u.test(words) || /[0-9a-f]{12}/i.test(words) || /^index$/i.test(words)) return host
  return cutText(words.charAt(0).toUpperCase() + words.slice(1), 80)
}

function decoded(text: string): string {
  try {
    return decodeURIComponent(text)
  } catch {
    return text
  }
}

/** A web link that is new, and still to be read. */
export const newWeblink = (fields: Pick<WeblinkRecord, 'id' | 'topic' | 'url' | 'title' | 'rank'>): WeblinkRecord => ({
  ...fields,
  read: false,
  trashed: false,
})

export const weblinkKind = defineKind(WeblinkRecord, {
  references: [inside('topic', 'topic', 'The topic of this web link')],
})
