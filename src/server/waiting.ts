import { isOverdue } from '../core/dates/agenda'
import type { Waiting } from '../core/network/waiting'
import { onlyMaps, reachesAll } from '../core/rights/grant'
import { changedLast } from './collections'
import { commentsFor } from './comments'
import { database, snapshot } from './database'
import { datesOf } from './dates'
import type { Member } from './http/endpoint'
import { countChangesSince, publicationOf } from './publications/publication-rows'

/** Web addresses on topics that can be seen, at which nothing was found when they were last looked at. $2 the maps that are open. */
const STALE = `
  SELECT count(DISTINCT w.url)::int AS stale
  FROM web_check c
  JOIN weblink w ON w.collection = $1 AND w.url = c.url AND NOT w.trashed
  JOIN topic t ON t.collection = $1 AND t.id = w.topic AND NOT t.trashed
  JOIN map m ON m.collection = $1 AND m.id = t.map AND NOT m.trashed
  WHERE c.collection = $1 AND c.trouble IS NOT NULL AND ($2::uuid[] IS NULL OR t.map = ANY($2))`

/** Of so many maps the last change is told. */
const MOST_LATELY = 24

/** What waits for somebody in a collection, or is new to them. `today` as `2026-03-14`. */
export async function waitingFor(member: Member, today: string): Promise<Waiting> {
  const { collection, reach } = member
  const [comments, dates, stale, site, lately] = await Promise.all([
    commentsFor(member, true),
    datesOf(member),
    database().query<{ stale: number }>(STALE, [collection, onlyMaps(reach)]),
    reachesAll(reach) ? publicationOf(collection) : null,
    reachesAll(reach)
      ? snapshot((client) => changedLast(client, collection, { without: null, most: MOST_LATELY }))
      : [],
  ])
  return {
    comments: comments.length,
    overdue: dates.filter((row) => isOverdue(row, today)).length,
    stale: stale.rows[0]!.stale,
    site:
      site && site.changeNumber > 0
        ? { behind: await countChangesSince(collection, site.changeNumber), maps: site.maps }
        : null,
    lately,
  }
}
