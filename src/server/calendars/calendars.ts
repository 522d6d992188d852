import pLimit from 'p-limit'
import { z } from 'zod'
import type { ToldConflict } from '../../core/calendar/plan'
import type { CalendarEntry } from '../../core/formats/calendar-entry'
import { MapId, TopicId } from '../../core/records/ids'
import { MAX_TITLE, storedText } from '../../core/records/text'
import { isoDay } from '../../core/text/days'
import { database } from '../database'
import type { Tasks } from '../heavy/tasks'
import { Thread } from '../heavy/thread'
import type { Member } from '../http/endpoint'
import { Failure } from '../http/failure'
import { lookNow } from '../jobs/runner'
import { canSeal } from '../outgoing/sealed'
import type { FoundCalendar } from './caldav'
import { type CalendarRow, calendarsOf, insertCalendar, lookSoon, MOST_CALENDARS } from './calendar-rows'

const Address = z
  .string()
  .max(2_000)
  .transform((text) => text.trim().replace(/^webcals?:/i, 'https:'))
  .refine(
    (text) => URL.canParse(text) && /^https?:$/.test(new URL(text).protocol),
    'This is not the address of a calendar. It begins with https://.',
  )
  // A name and a password are given apart, and never told again.
  .refine(
    (text) => !URL.canParse(text) || new URL(text).username === '',
    'Give the name and the password apart, not in the address.',
  )
  .transform((text) => new URL(text).href)

const Door = z.strictObject({
  address: Address,
  user: storedText(500).default(''),
  password: storedText(500).default(''),
})
export const CalendarSought = Door

const terms = {
  gives: z.union([z.enum(['all', 'none']), z.strictObject({ map: MapId })]),
  takes: z.enum(['all', 'chosen']),
  intoMap: MapId,
}
export const TermsAsked = z.strictObject(terms)
export const CalendarGiven = Door.extend({
  name: storedText(MAX_TITLE),
  zone: z.string().max(100).refine(isZone, 'This time zone is not known.'),
  ...terms,
})

function isZone(zone: string): boolean {
  try {
    return new Intl.DateTimeFormat('en', { timeZone: zone }).format(0) !== ''
  } catch {
    return false
  }
}

const looking = pLimit(2)
const MOST_WAITING = 20
const finder = new Thread<Pick<Tasks, 'findCalendars'>>({ ms: 45_000, mb: 256 })

/** The calendars at an address. Refused with what is wrong there. */
export async function seekCalendars(door: z.infer<typeof Door>): Promise<FoundCalendar[]> {
  if (looking.pendingCount >= MOST_WAITING)
    throw new Failure(503, 'Too many calendars are being looked for just now. Please try again in a moment.')
  return looking(() => finder.run('findCalendars', [door]))
}

interface ToldCalendar {
  id: string
  name: string
  address: string
  user: string
  /** In whose name it is kept in step. */
  person: string
  terms: z.infer<typeof TermsAsked>
  inStepAt: string | null
  trouble: string | null
  /** Whether most of what went with topics is gone there, and somebody has to say that it is meant. */
  asksToLose: boolean
  /** How many entries there are, and how many of them go with topics. */
  entries: number
  paired: number
  conflicts: (ToldConflict & { href: string; topic: string | null; map: string | null })[]
}

/** Of one calendar so many differences are told. */
const MOST_CONFLICTS = 200

/** The calendars of a collection, and what somebody has to choose about. */
export async function toldCalendars({ collection }: Member) {
  // Asked first: what ends meanwhile is told as it ended. One that came while others are looked at has no job of its own.
  const busy = await database().query(
    `SELECT FROM job WHERE collection = $1 AND kind = 'keep calendars in step' AND state IN ('waiting', 'running')
     UNION ALL SELECT FROM calendar WHERE collection = $1 AND next_at <= now()`,
    [collection],
  )
  const [rows, counts, conflicts] = await Promise.all([
    calendarsOf(collection),
    database().query<{ calendar: string; entries: number; paired: number }>(
      `SELECT c.id AS calendar, count(*) FILTER (WHERE NOT e.gone)::int AS entries, count(e.topic) FILTER (WHERE NOT e.gone)::int AS paired
       FROM calendar c JOIN calendar_entry e ON e.calendar = c.id WHERE c.collection = $1 GROUP BY c.id`,
      [collection],
    ),
    database().query<ToldCalendar['conflicts'][number] & { calendar: string }>(
      `SELECT c.id AS calendar, e.href, e.topic, t.map, e.conflict->'conflict' AS conflict, e.conflict->'here' AS here, e.conflict->'there' AS there
       FROM calendar c JOIN calendar_entry e ON e.calendar = c.id LEFT JOIN topic t ON t.collection = $1 AND t.id = e.topic
       WHERE c.collection = $1 AND e.conflict IS NOT NULL AND e.chosen IS NULL ORDER BY e.href LIMIT ${MOST_CONFLICTS}`,
      [collection],
    ),
  ])
  const countOf = new Map(counts.rows.map((row) => [row.calendar, row]))
  return {
    calendars: rows.map((row): ToldCalendar => {
      const { entries = 0, paired = 0 } = countOf.get(row.id) ?? {}
      const own = conflicts.rows.flatMap(({ calendar, ...conflict }) => (calendar === row.id ? conflict : []))
      return { ...told(row), entries, paired, conflicts: own }
    }),
    isBusy: busy.rowCount! > 0,
    /** The small calendar that was started with this server, to try it with; null where there is none. */
    standIn: process.env.FOLVET_CALENDAR || null,
  }
}

const told = (row: CalendarRow): Omit<ToldCalendar, 'entries' | 'paired' | 'conflicts'> => ({
  id: row.id,
  name: row.name,
  address: row.address,
  user: row.user,
  person: row.personName,
  terms: { gives: row.gives === 'map' ? { map: row.givesMap! } : row.gives, takes: row.takes, intoMap: row.intoMap },
  inStepAt: row.inStepAt,
  trouble: row.trouble,
  asksToLose: row.asksToLose,
})

const columnsOf = ({ gives, takes, intoMap }: z.infer<typeof TermsAsked>) => [
  typeof gives === 'string' ? gives : 'map',
  typeof gives === 'string' ? null : gives.map,
  takes,
  intoMap,
]

async function checkMaps(collection: string, { gives, intoMap }: z.infer<typeof TermsAsked>): Promise<void> {
  const maps = [intoMap, ...(typeof gives === 'string' ? [] : [gives.map])]
  const { rows } = await database().query('SELECT id FROM map WHERE collection = $1 AND id = ANY($2) AND NOT trashed', [
    collection,
    maps,
  ])
  if (rows.length < new Set(maps).size) throw new Failure(404, 'There is no such map any more.')
}

/** Keeps a collection in step with a calendar from now on. Its address is one that was found there. */
export async function addCalendar(
  { collection, person }: Member,
  given: z.infer<typeof CalendarGiven>,
  origin: string,
): Promise<{ id: string }> {
  await checkMaps(collection, given)
  if (given.password !== '' && !canSeal)
    throw new Failure(
      503,
      'This server has no key to keep a password with. Whoever runs it can give it one: FOLVET_KEY.',
    )
  const found = await seekCalendars(given)
  const calendar = found.find(({ address }) => address === given.address)
  if (!calendar) throw new Failure(409, 'There is no calendar at this address.')
  const { gives, ...rest } = given
  const id = await insertCalendar({
    ...rest,
    collection,
    person: person.id,
    name: (given.name || calendar.name).slice(0, MAX_TITLE),
    origin,
    gives: typeof gives === 'string' ? gives : 'map',
    givesMap: typeof gives === 'string' ? null : gives.map,
  })
  if (id === null)
    throw new Failure(
      409,
      `This collection is kept in step with this calendar already, or with ${MOST_CALENDARS} others.`,
    )
  lookNow()
  return { id }
}

const NOT_THERE = 'This collection is not kept in step with such a calendar.'

export async function changeTerms(
  { collection }: Member,
  id: string,
  asked: z.infer<typeof TermsAsked>,
): Promise<void> {
  await checkMaps(collection, asked)
  const { rowCount } = await database().query(
    'UPDATE calendar SET gives = $3, gives_map = $4, takes = $5, into_map = $6 WHERE collection = $1 AND id = $2',
    [collection, id, ...columnsOf(asked)],
  )
  if (rowCount === 0) throw new Failure(404, NOT_THERE)
  await look(collection, id)
}

/** Keeps a collection no more in step with a calendar; topics and entries stay as they are. */
export async function endCalendar({ collection }: Member, id: string): Promise<void> {
  const { rowCount } = await database().query('DELETE FROM calendar WHERE collection = $1 AND id = $2', [
    collection,
    id,
  ])
  if (rowCount === 0) throw new Failure(404, NOT_THERE)
}

async function look(collection: string, id: string | null): Promise<void> {
  await lookSoon(collection, id)
  lookNow()
}

const href = z.string().max(2_000)
export const CalendarAct = z.discriminatedUnion('act', [
  z.strictObject({ act: z.literal('look') }),
  /** Most of it went there, and that is meant. */
  z.strictObject({ act: z.literal('lose') }),
  z.strictObject({ act: z.literal('choose'), href, side: z.enum(['here', 'there']) }),
  z.strictObject({ act: z.literal('put'), href, topic: TopicId }),
])

/** Does something about a calendar; what follows from it is done in a moment. */
export async function actOnCalendar(
  { collection }: Member,
  id: string,
  asked: z.infer<typeof CalendarAct>,
): Promise<void> {
  const { rowCount } = await database().query(
    'UPDATE calendar SET may_lose = may_lose OR $3 WHERE collection = $1 AND id = $2',
    [collection, id, asked.act === 'lose'],
  )
  if (rowCount === 0) throw new Failure(404, NOT_THERE)
  if (asked.act === 'choose') {
    const { rowCount: chosen } = await database().query(
      `UPDATE calendar_entry SET chosen = $3 WHERE calendar = $1 AND href = $2 AND conflict IS NOT NULL`,
      [id, asked.href, asked.side],
    )
    if (chosen === 0) throw new Failure(409, 'There is nothing to be chosen about this entry any more.')
  }
  if (asked.act === 'put') await putOnTopic(collection, id, asked.href, asked.topic)
  await look(collection, id)
}

async function putOnTopic(collection: string, id: string, entry: string, topic: TopicId): Promise<void> {
  const { rowCount } = await database().query(
    `UPDATE calendar_entry e SET topic = t.id, agreed = NULL, conflict = NULL, chosen = NULL FROM topic t
     WHERE e.calendar = $1 AND e.href = $2 AND e.topic IS NULL AND NOT e.gone AND t.collection = $3 AND t.id = $4 AND NOT t.trashed
       AND NOT EXISTS (SELECT 1 FROM calendar_entry o WHERE o.calendar = $1 AND o.topic = $4)`,
    [id, entry, collection, topic],
  )
  if (rowCount === 0)
    throw new Failure(409, 'This entry goes with a topic already, the topic with an entry, or one of them is gone.')
}

/** Of what waits in calendars so much is told, the first that lie ahead. */
const MOST_WAITING_TOLD = 1_000

/** Entries that go with no topic yet, in the order of their days: what is over comes last. */
export async function waitingEntries({ collection }: Member) {
  const { rows } = await database().query<{ calendar: string; name: string; href: string; entry: CalendarEntry }>(
    `SELECT e.calendar, c.name, e.href, e.entry FROM calendar c JOIN calendar_entry e ON e.calendar = c.id
     WHERE c.collection = $1 AND e.topic IS NULL AND NOT e.gone AND e.entry IS NOT NULL
     ORDER BY (COALESCE(e.entry->'dates'->>'end', e.entry->'dates'->>'start', '9') < $2 AND NOT COALESCE(e.entry->'dates' ? 'repeats', false)),
       COALESCE(e.entry->'dates'->>'start', '9'), e.href LIMIT ${MOST_WAITING_TOLD}`,
    [collection, isoDay(Math.floor(Date.now() / 86_400_000))],
  )
  return rows.map(({ entry: { text, dates, task }, ...row }) => ({ ...row, text, dates, task }))
}
