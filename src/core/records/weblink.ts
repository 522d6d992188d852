import { z } from 'zod'
import { TopicId, WeblinkId } from './ids'
import { defineKind, inside } from './kind'
import { Rank } from './place'
import { storedText, title } from './text'

/** Longest address, in UTF-16 code units. */
export const MAX_ADDRESS = 2_000

/** Addresses that may be followed from a page: nothing that runs as script. */
export const isFollowable = (url: string): boolean => /^(https?:\/\/[^\s/?#]+|mailto:[^\s@]+@[^\s@]+)/i.test(url)

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

/** A web link that is new, and still to be read. */
export const newWeblink = (fields: Pick<WeblinkRecord, 'id' | 'topic' | 'url' | 'title' | 'rank'>): WeblinkRecord => ({
  ...fields,
  read: false,
  trashed: false,
})

export const weblinkKind = defineKind(WeblinkRecord, {
  references: [inside('topic', 'topic', 'The topic of this web link')],
})
