import { z } from 'zod'
import { MapId, TagId } from '../../core/records/ids'
import type { Member } from '../http/endpoint'
import { Failure } from '../http/failure'
import { search, waysTo } from './search'
import { SEARCHED_KINDS } from './search-index'

const Asked = z.object({
  words: z.string().max(200),
  kinds: z.array(z.enum(SEARCHED_KINDS)).min(1),
  map: MapId.nullable(),
  tag: TagId.nullable(),
})

/** Of each kind so many. */
const MOST = 60

/** What the search page asks for by its address: what is found, with the topics above it. */
export async function searchPage(member: Member, asked: URLSearchParams) {
  const parsed = Asked.safeParse({
    words: (asked.get('words') ?? '').replaceAll('\u0000', ''),
    kinds: asked.get('kinds')?.split(',') ?? SEARCHED_KINDS,
    map: asked.get('map'),
    tag: asked.get('tag'),
  })
  if (!parsed.success) throw new Failure(400, 'This cannot be searched for.')
  const found = await search(member, { ...parsed.data, most: MOST })
  const topics = found.rows.flatMap(({ topic }) => topic ?? [])
  const ways = await waysTo(member, topics)
  return { ...found, rows: found.rows.map((row) => ({ ...row, way: ways.get(row.topic ?? '') ?? [] })) }
}
