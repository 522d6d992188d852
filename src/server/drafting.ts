import { z } from 'zod'
import { contentWords } from '../core/drafting/key-phrases'
import { MAX_DRAWN_ON, MAX_WISH } from '../core/drafting/limits'
import { computedProposer, type Proposer, type RelatedTopic } from '../core/drafting/proposer'
import { onlyMaps } from '../core/rights/grant'
import { database } from './database'
import type { Member } from './http/endpoint'

export const DraftAsked = z.strictObject({ wish: z.string().max(MAX_WISH), text: z.string().max(MAX_DRAWN_ON) })

/** Who proposes. What ships computes and needs no network; a service would stand here. */
const proposer: Proposer = computedProposer

/** Words of a wish that are looked up, and topics that are handed on. */
const [MOST_WORDS, MOST_TOPICS] = [12, 8]

/** Topics that are open to somebody, with something below them, that share words with a wish: those with the most words in common first. */
async function relatedTo({ collection, reach }: Member, wish: string): Promise<RelatedTopic[]> {
  const words = contentWords(wish)
    .filter((word) => word.length > 2)
    .slice(0, MOST_WORDS)
  if (words.length === 0) return []
  const { rows } = await database().query<RelatedTopic>(
    `WITH hit AS (
       SELECT t.id, t.text, (SELECT count(*) FROM unnest($2::text[]) AS word WHERE lower(t.text) LIKE '%' || word || '%') AS hits
       FROM topic t JOIN map m ON m.collection = $1 AND m.id = t.map
       WHERE t.collection = $1 AND NOT t.trashed AND NOT m.trashed AND t.opens_map IS NULL
         AND ($4::uuid[] IS NULL OR t.map = ANY($4))
     )
     SELECT hit.id, hit.text,
            ARRAY(SELECT c.text FROM topic c WHERE c.collection = $1 AND c.parent = hit.id AND NOT c.trashed
                  ORDER BY c.rank COLLATE "C" LIMIT 8) AS children
     FROM hit WHERE hits > 0 AND EXISTS (SELECT 1 FROM topic c WHERE c.collection = $1 AND c.parent = hit.id AND NOT c.trashed)
     ORDER BY hits DESC, length(hit.text), hit.id LIMIT $3`,
    [collection, words.map((word) => word.replace(/[\\%_]/g, '\\$&')), MOST_TOPICS, onlyMaps(reach)],
  )
  return rows
}

/** Branches to start from, for a wish or a text. */
export async function draft(member: Member, { wish, text }: z.infer<typeof DraftAsked>) {
  return { items: await proposer.propose({ wish, text, related: await relatedTo(member, wish) }) }
}
