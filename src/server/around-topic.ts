import type { TopicId } from '../core/records/ids'
import { mayRead, onlyMaps, reachesAll } from '../core/rights/grant'
import { type Client, prepared, snapshot } from './database'
import type { Member } from './http/endpoint'
import { Failure } from './http/failure'
import { isBelowTrash } from './search/conditions'

/** A topic with where it stands. */
export interface Standing {
  id: string
  text: string
  map: string
  mapTitle: string
}

/** Of each so many are told. */
const MOST = 200

const standing = (condition: string) => `
  SELECT t.id, t.text, t.map, m.title AS "mapTitle"
  FROM topic t JOIN map m ON m.collection = $1 AND m.id = t.map AND NOT m.trashed
  WHERE t.collection = $1 AND NOT t.trashed AND ($3::uuid[] IS NULL OR t.map = ANY($3)) AND ${condition}
    AND NOT ${isBelowTrash('t.parent')}
  ORDER BY m.title, t.text, t.id LIMIT ${MOST}`

const ITSELF = standing('t.id = $2')
const LINKING = standing(`t.note IN (
  SELECT n.id FROM note n WHERE n.collection = $1 AND n.links <> '{}' AND n.links @> ARRAY[$2::uuid] AND NOT n.trashed)`)
const CARRYING = standing(
  't.id <> $2 AND t.note IN (SELECT note FROM topic WHERE collection = $1 AND id = $2 AND note IS NOT NULL)',
)
/** Web links at other topics with an address of one of those at this topic. */
const SHARING = `
  SELECT own.id AS link, t.id, t.text, t.map, m.title AS "mapTitle"
  FROM weblink own JOIN weblink w ON w.collection = $1 AND w.url = own.url AND NOT w.trashed AND w.topic <> own.topic
  JOIN topic t ON t.collection = $1 AND t.id = w.topic AND NOT t.trashed
  JOIN map m ON m.collection = $1 AND m.id = t.map AND NOT m.trashed
  WHERE own.collection = $1 AND own.topic = $2 AND NOT own.trashed AND ($3::uuid[] IS NULL OR t.map = ANY($3))
    AND NOT ${isBelowTrash('t.parent')}
  ORDER BY m.title, t.text, t.id LIMIT ${MOST}`

/** Calendars elsewhere in which it is. */
const PLANNED = `
  SELECT c.id AS calendar, c.name, e.conflict IS NOT NULL AND e.chosen IS NULL AS "isOpen"
  FROM calendar_entry e JOIN calendar c ON c.id = e.calendar WHERE c.collection = $1 AND e.topic = $2 ORDER BY c.name, c.id`

/** What a topic has to do with topics anywhere in the collection, as far as these are open to whoever asks. */
export async function aroundTopic({ collection, reach }: Member, topic: TopicId) {
  return snapshot(async (client) => {
    const given = [collection, topic, onlyMaps(reach)]
    const ask = async <Row extends object = Standing>(query: string) => (await prepared<Row>(client, query, given)).rows
    const [itself] = await ask(ITSELF)
    if (!itself || !mayRead(reach, itself.map))
      throw new Failure(404, 'There is no such topic any more, or it is not open to you.')
    return {
      topic: itself,
      /** Topics whose notes lead here. */
      linkedFrom: await ask(LINKING),
      /** Other topics that carry its note. */
      carriedBy: await ask(CARRYING),
      /** Topics with a web link to the same address as one here, by the id of that link. */
      sharing: await ask<Standing & { link: string }>(SHARING),
      calendars: reachesAll(reach, 'editor') ? await inCalendars(client, collection, topic) : [],
    }
  })
}

async function inCalendars(client: Client, collection: string, topic: TopicId) {
  return (await prepared<{ calendar: string; name: string; isOpen: boolean }>(client, PLANNED, [collection, topic]))
    .rows
}
