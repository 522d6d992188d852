import { z } from 'zod'
import { onlyMaps, reachesAll } from '../core/rights/grant'
import { database, snapshot } from './database'
import type { Member } from './http/endpoint'

/** A comment as a list tells it, with where it stands. */
interface ToldComment {
  id: string
  /** The comment with which its thread began; null for that one. */
  answers: string | null
  topic: string
  topicText: string
  map: string
  mapTitle: string
  author: string | null
  authorName: string
  at: string
  text: string
  quote: string
  resolved: boolean
  /** Whether whoever asks has not seen it yet; it is not their own. */
  isNew: boolean
  /** Whether it names whoever asks. */
  isForMe: boolean
}

/** Of all threads so many of the newest are told. */
const MOST_THREADS = 500

/** Whether a topic, or one above it, lies in the trash. */
const NOT_IN_TRASH = `NOT EXISTS (
  WITH RECURSIVE above(id, parent, trashed) AS (
    SELECT t.id, t.parent, t.trashed
    UNION SELECT a.id, a.parent, a.trashed FROM above JOIN topic a ON a.collection = $1 AND a.id = above.parent
  ) SELECT 1 FROM above WHERE trashed)`

/** $2 who asks, $3 the maps that are open. */
const COMMENTS = `
  WITH thread AS MATERIALIZED (
    SELECT c.id, c.topic, c.resolved, t.text AS topic_text, t.map, m.title
    FROM comment c JOIN topic t ON t.collection = $1 AND t.id = c.topic JOIN map m ON m.collection = $1 AND m.id = t.map
    WHERE c.collection = $1 AND c.answers IS NULL AND NOT c.trashed AND NOT m.trashed
      AND ($3::uuid[] IS NULL OR t.map = ANY($3)) AND ${NOT_IN_TRASH}
    ORDER BY c.at DESC, c.id LIMIT ${MOST_THREADS})
  SELECT c.id, c.answers, thread.topic, thread.topic_text AS "topicText", thread.map, thread.title AS "mapTitle",
         c.author, c.author_name AS "authorName", c.at, c.text, c.quote, thread.resolved,
         c.author IS DISTINCT FROM $2 AND NOT thread.resolved AND NOT EXISTS (
           SELECT 1 FROM comment_seen s WHERE s.collection = $1 AND s.person = $2 AND s.comment = c.id) AS "isNew",
         $2 = ANY(c.mentions) AS "isForMe"
  FROM thread JOIN comment c ON c.collection = $1 AND (c.id = thread.id OR c.answers = thread.id) AND NOT c.trashed
  ORDER BY c.at, c.id`

/** What was said on topics that are open to whoever asks, oldest first. */
export async function commentsFor({ collection, person, reach }: Member, onlyNew = false): Promise<ToldComment[]> {
  const given = [collection, person.id, onlyMaps(reach)]
  const { rows } = await snapshot((client) => client.query<ToldComment>(COMMENTS, given))
  return onlyNew ? rows.filter(({ isNew }) => isNew) : rows
}

export const SeenAsked = z.strictObject({ comments: z.array(z.uuid().lowercase()).min(1).max(1_000) })

/** Notes that somebody has seen some comments; what is not there is passed over. */
export async function noteSeen({ collection, person }: Member, comments: readonly string[]): Promise<void> {
  await database().query(
    `INSERT INTO comment_seen (collection, comment, person)
     SELECT $1, id, $2 FROM comment WHERE collection = $1 AND id = ANY($3) ON CONFLICT DO NOTHING`,
    [collection, person.id, comments],
  )
}

/** Whoever has a role in a collection, by name, for naming them; nobody to whom only some maps are open learns of the others. */
export async function peopleIn({ collection, person, reach }: Member): Promise<{ id: string; name: string }[]> {
  if (!reachesAll(reach)) return [{ id: person.id, name: person.name }]
  const { rows } = await database().query<{ id: string; name: string }>(
    `SELECT DISTINCT p.id, p.name FROM open_grant g JOIN person p ON p.id = g.person
     WHERE g.collection = $1 ORDER BY p.name, p.id LIMIT 500`,
    [collection],
  )
  return rows
}
