import { z } from 'zod'
import { TopicId } from '../core/records/ids'
import { MAX_TOPIC_TEXT } from '../core/records/text'
import { MOST_SORTED, type Suggestions, suggest } from '../core/sorting/suggestions'
import { english } from './lexicon/lexicon'

const text = z.string().max(MAX_TOPIC_TEXT)

/** What stands on a sorting table: the browser sends it, since what was just done may not be known here yet. */
export const Table = z.strictObject({
  items: z.array(z.strictObject({ id: TopicId, text })).max(MOST_SORTED),
  bands: z.array(z.strictObject({ id: TopicId, text, items: z.array(text).max(MOST_SORTED) })).max(200),
})

/** What the words on a sorting table suggest, read with the lexicon of English. */
export const suggestBands = async ({ items, bands }: z.infer<typeof Table>): Promise<Suggestions> =>
  suggest(items, bands, english())
