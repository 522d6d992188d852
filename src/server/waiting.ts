import { LRUCache } from 'lru-cache'
import { isOverdue } from '../core/dates/agenda'
import type { Waiting } from '../core/network/waiting'
import { Day } from '../core/records/dates'
import { onlyMaps, reachesAll } from '../core/rights/grant'
import { changedLast } from './collections'
import { commentsFor } from './comments'
import { database, snapshot } from './database'
import { datesOf } from './dates'
import { inThread } from './heavy/heavy'
import type { Member } from './http/endpoint'
import { Failure } from './http/failure'
import { countChangesSince, publicationOf } from './publications/publication-rows'

/** Web addresses on topics that can be seen, at which nothing was found when they were last looked at. $2 the maps that are open. */
const STALE = `
  SELECT count(DISTINCT w.url)::int AS stale
  FROM web_check c
  JOIN weblink w ON w.collection = $1 AND w.url = c.url AND NOT w.trashed
  JOIN topic t ON t.collection = $1 AND t.id = w.topic AND NOT t.trashed
  JOIN map m ON m.collection = $1 AND m.id = t.map AND NOT m.trashed
  WHERE c.collection = $1 AND c.trouble IS NOT NULL AND ($2::uuid[] IS NULL OR t.map = ANY($2))`

/** A collection of more topics is not looked through for what is hard to read whenever somebody comes by: that takes a thread for a second. */
const MOST_LOOKED_THROUGH = 4_000
/** How many maps are hard to read, by what is open to whoever asks, the collection, and its last change. */
const crowdedKnown = new LRUCache<string, number>({ max: 1_000 })

async function crowdedFor(member: Member): Promise<number | null> {
  const { collection, reach } = member
  const { rows } = await database().query<{ topics: number; last: number }>(
    `SELECT (SELECT COALESCE(sum(topics), 0)::int FROM map_digest WHERE collection = $1) AS topics,
            COALESCE((SELECT last FROM collection_counter WHERE collection = $1), 0) AS last`,
    [collection],
  )
  const { topics, last } = rows[0]!
  if (topics > MOST_LOOKED_THROUGH) return null
  const key = `${onlyMaps(reach)?.join() ?? 'all'} ${collection} ${last}`
  const known = crowdedKnown.get(key)
  if (known !== undefined) return known
  const count = await inThread('countCrowded', member)
  crowdedKnown.set(key, count)
  return count
}

/** Of so many maps the last change is told. */
const MOST_LATELY = 24

/** What waits for somebody in a collection, or is new to them. `asked` says which day it is where they are, as `2026-03-14`. */
export async function waitingFor(member: Member, asked: string | null): Promise<Waiting> {
  const { data: today } = Day.safeParse(asked)
  if (!today) throw new Failure(400, 'Say which day it is, as 2026-03-14.')
  const { collection, reach } = member
  const [comments, dates, stale, crowded, site, lately] = await Promise.all([
    commentsFor(member, true),
    datesOf(member),
    database().query<{ stale: number }>(STALE, [collection, onlyMaps(reach)]),
    crowdedFor(member),
    reachesAll(reach) ? publicationOf(collection) : null,
    reachesAll(reach)
      ? snapshot((client) => changedLast(client, collection, { without: null, most: MOST_LATELY }))
      : [],
  ])
  return {
    comments: comments.length,
    overdue: dates.filter((row) => isOverdue(row, today)).length,
    crowded,
    stale: stale.rows[0]!.stale,
    site:
      site && site.changeNumber > 0
        ? { behind: await countChangesSince(collection, site.changeNumber), maps: site.maps }
        : null,
    lately,
  }
}
