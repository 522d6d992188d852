import { z } from 'zod'
import { readAsked } from '../../core/gathering/asked-address'
import { Day } from '../../core/records/dates'
import type { Member } from '../http/endpoint'
import { Failure } from '../http/failure'
import { conditionsOf } from './conditions'
import { gatheredBy } from './gather'
import { search, waysTo } from './search'
import { SEARCHED_KINDS } from './search-index'

const Kinds = z.array(z.enum(SEARCHED_KINDS)).min(1)

/** Of each kind so many. */
const MOST = 60

const refused = (): never => {
  throw new Failure(400, 'This cannot be searched for.')
}

/** The day on which somebody asks, as their browser says it. */
export const todayIn = (parameters: URLSearchParams): string =>
  Day.safeParse(parameters.get('today') ?? new Date().toISOString().slice(0, 10)).data ?? refused()

/** Of what a search would gather so many are shown. */
const MOST_SHOWN = 8

/** What a search that stands in the parameters of an address would gather. */
export const gatheredFor = (member: Member, parameters: URLSearchParams) =>
  gatheredBy(member, readAsked(parameters) ?? refused(), todayIn(parameters), MOST_SHOWN)

/** What the search page asks for by its address: what is found, with the topics above it. */
export async function searchPage(member: Member, parameters: URLSearchParams) {
  const asked = readAsked(parameters) ?? refused()
  const kinds = Kinds.safeParse(parameters.get('kinds')?.split(',') ?? SEARCHED_KINDS).data ?? refused()
  const { words, map, tag } = asked
  const found = await search(member, {
    words,
    map,
    tag,
    kinds,
    conditions: conditionsOf(asked, todayIn(parameters)),
    most: MOST,
  })
  const topics = found.rows.flatMap(({ topic }) => topic ?? [])
  const ways = await waysTo(member, topics)
  return { ...found, rows: found.rows.map((row) => ({ ...row, way: ways.get(row.topic ?? '') ?? [] })) }
}
