import { z } from 'zod'
import { MapId, TagId } from '../../../../core/records/ids'
import { endpoint } from '../../../../server/http/endpoint'
import { Failure } from '../../../../server/http/failure'
import { search, waysTo } from '../../../../server/search/search'
import { SEARCHED_KINDS } from '../../../../server/search/search-index'

const Asked = z.object({
  words: z.string().max(200),
  kinds: z.array(z.enum(SEARCHED_KINDS)).min(1),
  map: MapId.nullable(),
  tag: TagId.nullable(),
})

/** Of each kind so many. */
const MOST = 60

/** All that is found in a collection, with the topics above it. */
export const GET = endpoint({
  access: 'reader of a map',
  cost: 10,
  async handle({ who, url: { searchParams: asked } }) {
    const parsed = Asked.safeParse({
      words: (asked.get('words') ?? '').replaceAll('\u0000', ''),
      kinds: asked.get('kinds')?.split(',') ?? SEARCHED_KINDS,
      map: asked.get('map'),
      tag: asked.get('tag'),
    })
    if (!parsed.success) throw new Failure(400, 'This cannot be searched for.')
    const found = await search(who, { ...parsed.data, most: MOST })
    const ways = await waysTo(
      who,
      found.rows.flatMap(({ topic }) => topic ?? []),
    )
    return { ...found, rows: found.rows.map((row) => ({ ...row, way: ways.get(row.topic ?? '') ?? [] })) }
  },
})
