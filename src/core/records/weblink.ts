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
  trashed: z.boolean(),
})
export type WeblinkRecord = z.infer<typeof WeblinkRecord>

export const weblinkKind = defineKind(WeblinkRecord, {
  references: [inside('topic', 'topic', 'The topic of this web link')],
})
