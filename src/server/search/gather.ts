import type { MapId, TopicId } from '../../core/records/ids'
import type { SearchAsked } from '../../core/records/search'
import type { TopicRecord } from '../../core/records/topic'
import { mayRead, onlyMaps } from '../../core/rights/grant'
import { type Client, prepared, snapshot } from '../database'
import type { Member } from '../http/endpoint'
import { Failure } from '../http/failure'
import { selectRecords } from '../records/tables'
import { conditionsOf, GATHERING } from './conditions'
import { caughtUp, quoted } from './search'
import { searchedWords } from './search-index'

/** A list shows at most so many topics, a map at most so many lists, and a site so many. */
const MOST_IN_LIST = 200
const [MOST_LISTS, MOST_LISTS_OF_SITE] = [30, 1_000]
/** How long one list may take, in ms. */
const MOST_MS = 2_000

const GATHERED = `SELECT t.id ${GATHERING}`

/** The topics that have what is asked for, in order, on the maps of `only`; null for all maps. */
async function gather(
  client: Client,
  collection: string,
  only: readonly string[] | null,
  asked: SearchAsked,
  today: string,
  most: number,
): Promise<TopicId[]> {
  const words = searchedWords(asked.words)
  const query = words.length === 0 ? null : words.map((word) => `${quoted(word)}:*`).join(' & ')
  if (words.length === 0 && asked.words.trim() !== '') return []
  const given = [collection, asked.tag, only, asked.map, conditionsOf(asked, today), query, most]
  return (await prepared<{ id: TopicId }>(client, GATHERED, given)).rows.map(({ id }) => id)
}

interface List {
  id: TopicId
  gathers: SearchAsked
}

/** What a list found: at most so many, and whether there are more. */
export interface FoundByList {
  list: TopicId
  topics: TopicId[]
  isMore: boolean
}

async function findFor(
  client: Client,
  collection: string,
  only: readonly string[] | null,
  lists: readonly List[],
  today: string,
): Promise<FoundByList[]> {
  await client.query(`SET LOCAL statement_timeout = ${MOST_MS}`)
  const found: FoundByList[] = []
  for (const { id, gathers } of lists) {
    const topics = await gather(client, collection, only, gathers, today, MOST_IN_LIST + 1)
    found.push({ list: id, topics: topics.slice(0, MOST_IN_LIST), isMore: topics.length > MOST_IN_LIST })
  }
  return found
}

const LISTS = `SELECT id, gathers FROM topic WHERE collection = $1 AND gathers IS NOT NULL AND NOT trashed`

/** What the gathered lists of a map find now, with the topics themselves, as far as they are open to whoever asks. */
export async function gatheredOn(
  { collection, reach }: Member,
  map: MapId,
  today: string,
): Promise<{ lists: FoundByList[]; topics: TopicRecord[] }> {
  if (!mayRead(reach, map)) throw new Failure(404, 'There is no such map, or it is not open to you.')
  await caughtUp(collection)
  return snapshot(async (client) => {
    const { rows } = await prepared<List>(client, `${LISTS} AND map = $2 ORDER BY id LIMIT ${MOST_LISTS}`, [
      collection,
      map,
    ])
    const lists = await findFor(client, collection, onlyMaps(reach), rows, today)
    const ids = [...new Set(lists.flatMap(({ topics }) => topics))]
    return { lists, topics: await selectRecords(client, 'topic', collection, 'AND id = ANY($2)', [ids]) }
  })
}

/** What a search would gather, to be shown before it is kept: the first topics, and whether there are more. */
export async function gatheredBy({ collection, reach }: Member, asked: SearchAsked, today: string, most: number) {
  await caughtUp(collection)
  return snapshot(async (client) => {
    await client.query(`SET LOCAL statement_timeout = ${MOST_MS}`)
    const ids = await gather(client, collection, onlyMaps(reach), asked, today, MOST_IN_LIST + 1)
    const topics = await selectRecords(client, 'topic', collection, 'AND id = ANY($2)', [ids.slice(0, most)])
    const byId = new Map(topics.map((topic) => [topic.id, topic]))
    return {
      topics: ids.flatMap((id) => {
        const topic = byId.get(id)
        return topic ? { id, text: topic.text, map: topic.place.map } : []
      }),
      count: Math.min(ids.length, MOST_IN_LIST),
      isMore: ids.length > MOST_IN_LIST,
    }
  })
}

/** What all gathered lists of a collection find on some of its maps, or on all, for publishing. */
export async function gatheredForSite(
  collection: string,
  only: readonly string[] | null,
  today: string,
): Promise<ReadonlyMap<string, readonly TopicId[]>> {
  await caughtUp(collection)
  return snapshot(async (client) => {
    const { rows } = await client.query<List>(`${LISTS} ORDER BY id LIMIT ${MOST_LISTS_OF_SITE}`, [collection])
    const found = await findFor(client, collection, only, rows, today)
    return new Map(found.map(({ list, topics }) => [list, topics]))
  })
}
