import { v7 as uuid } from 'uuid'
import { z } from 'zod'
import { collectionReview, crowdedAmong, splitNumbers } from '../core/crowding/collection-review'
import { MapId, TopicId } from '../core/records/ids'
import type { Records } from '../core/records/records'
import { MAX_TITLE } from '../core/records/text'
import { mayRead } from '../core/rights/grant'
import { ALL_FONTS } from '../core/text/all-fonts'
import { topicsInOrder } from '../core/tree/walk'
import { wholeCollection } from './collections'
import type { Member } from './http/endpoint'
import { Failure } from './http/failure'

const newIds = { newId: uuid }
const context = { fonts: ALL_FONTS, countTopics: () => 0 }

/** Topics that are laid out for a review of a whole collection: some twenty seconds. */
const MOST_LAID_OUT = 60_000

export const Parts = z
  .array(
    z.union([
      z.strictObject({ topic: TopicId, name: z.string().max(MAX_TITLE).optional() }),
      z.strictObject({ row: z.array(TopicId).min(1).max(2_000), name: z.string().max(MAX_TITLE) }),
    ]),
  )
  .max(500)

/** So many of the maps that are hard to read are told at once, the worst. */
const MOST_CROWDED_TOLD = 200

/** The worst of the maps of a collection that are hard to read, as far as they are open to whoever asks, and how many there are. For a thread of its own. */
export async function crowdedMaps({ collection, reach }: Member) {
  const { records } = await wholeCollection(collection)
  const maps = openMaps(records, reach)
  const crowded = collectionReview(records, maps, context, newIds, MOST_LAID_OUT)
  return { count: crowded.length, maps: crowded.slice(0, MOST_CROWDED_TOLD) }
}

/** How many maps are hard to read of those that are open to whoever asks. For a thread of its own. */
export async function countCrowded({ collection, reach }: Member): Promise<number> {
  const { records } = await wholeCollection(collection)
  return [...crowdedAmong(records, openMaps(records, reach), context)].length
}

const openMaps = (records: Records, reach: Member['reach']): { map: MapId; topics: number }[] =>
  [...records.all('map')]
    .filter(({ id, trashed }) => !trashed && mayRead(reach, id))
    .map(({ id }) => ({ map: id, topics: [...topicsInOrder(records, id)].length }))

export const Effect = z.strictObject({ map: MapId, parts: Parts })

/** What splitting off parts of a map would come to. For a thread of its own. */
export async function splitComesTo({ collection, reach }: Member, { map, parts }: z.infer<typeof Effect>) {
  const { records } = await wholeCollection(collection)
  if (!records.root(map) || !mayRead(reach, map)) throw new Failure(404, 'This map is gone.')
  return splitNumbers(records, map, parts, context, newIds)
}
