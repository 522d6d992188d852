import { daysAsked } from '../../core/gathering/asked'
import type { SearchAsked } from '../../core/records/search'

/**
 * What a search asks of a topic besides its words, its tag and its map, as `topic_meets` in the database reads it; null where nothing is
 * asked for. `today` is a date in ISO 8601.
 */
export function conditionsOf(asked: SearchAsked, today: string): string | null {
  const { task, due, who } = asked
  if (!task && !due && !who) return null
  const days = daysAsked(asked, today)
  return JSON.stringify({
    ...(task ? { tasks: task === 'left' ? ['open', 'begun'] : [task] } : {}),
    ...(due ? { dated: true } : {}),
    ...(days?.from ? { from: days.from } : {}),
    ...(days?.to ? { to: days.to } : {}),
    ...(who ? { person: who.person, name: who.name } : {}),
  })
}

/** Whether a topic meets the conditions in a parameter such as `$10`. */
export const meets = (parameter: string, topic = 't'): string =>
  `(${parameter}::jsonb IS NULL OR topic_meets(${topic}.task, ${topic}.dates, ${topic}.work, ${parameter}::jsonb))`

const inOrder = (topic: string, title: string): string =>
  `COALESCE(${topic}.dates->>'end', ${topic}.dates->>'start') NULLS LAST, ${title} COLLATE natural_order, ${topic}.text COLLATE natural_order, ${topic}.id`

/** Whether a topic, or one above it, lies in the trash. */
export const isBelowTrash = (topic: string) => `EXISTS (
          WITH RECURSIVE above(parent, trashed) AS (
            SELECT ${topic}, false
            UNION SELECT a.parent, a.trashed FROM above JOIN topic a ON a.collection = $1 AND a.id = above.parent
          ) SELECT 1 FROM above WHERE trashed)`

/** Topics that lie in the trash among those that are found are left out of the first so many beyond those that are asked for. */
const MORE = 500

/**
 * Topics `t`, with the titles of their maps, that have what is asked for, by their last day, then by map and text: $2 the tag, $3 the maps that are open, $4 the
 * one map, $5 the conditions, $6 the words as a query of the index, all of them in the topic or all in its note, each of these where it is
 * not null. $7 how many.
 */
export const GATHERING = `
  FROM (
    SELECT found.*, there.title AS map_title FROM topic found
    JOIN map there ON there.collection = $1 AND there.id = found.map AND NOT there.trashed
    WHERE found.collection = $1 AND NOT found.trashed AND found.place <> 'to place' AND ($2::uuid IS NULL OR $2 = ANY(found.tags))
      AND ($3::uuid[] IS NULL OR found.map = ANY($3)) AND ($4::uuid IS NULL OR found.map = $4) AND ${meets('$5', 'found')}
      AND ($6::text IS NULL OR found.id IN (
        SELECT id FROM search_row WHERE collection = $1 AND kind = 'topic' AND words @@ $6::tsquery
        UNION ALL
        SELECT carrier.id FROM search_row r JOIN topic carrier ON carrier.collection = $1 AND carrier.note = r.id
        WHERE r.collection = $1 AND r.kind = 'note' AND r.words @@ $6::tsquery))
    ORDER BY ${inOrder('found', 'there.title')} LIMIT $7 + ${MORE}
  ) t
  WHERE NOT ${isBelowTrash('t.parent')}
  ORDER BY ${inOrder('t', 't.map_title')} LIMIT $7`
