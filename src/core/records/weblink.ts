import { z } from 'zod'
import { TopicId, WeblinkId } from './ids'
import { storedText, title } from './text'
import { Rank } from './topic'

/** Addresses that may be followed from a page: nothing that runs as script. */
export const isFollowable = (url: string): boolean => /^(https?:\/\/[^\s/?#]+|mailto:[^\s@]+@[^\s@]+)/i.test(url)

/** A named address on the web, carried by a topic. */
export const WeblinkRecord = z.strictObject({
  id: WeblinkId,
  topic: TopicId,
  url: storedText(2_000).refine(isFollowable, 'A web link begins with http://, https:// or mailto:.'),
  title,
  rank: Rank,
  trashed: z.boolean(),
})
export type WeblinkRecord = z.infer<typeof WeblinkRecord>
