import { v7 as uuid } from 'uuid'
import type { Agreed, Which } from '../../core/calendar/in-step'
import type { ToldConflict } from '../../core/calendar/plan'
import type { CalendarEntry } from '../../core/formats/calendar-entry'
import type { MapId, TopicId } from '../../core/records/ids'
import { type Client, database } from '../database'
import { seal } from '../outgoing/sealed'

/** A calendar elsewhere with which a collection is kept in step, as it is stored. */
export interface CalendarRow {
  id: string
  collection: string
  name: string
  address: string
  user: string
  /** Sealed. */
  password: string
  person: string
  personName: string
  zone: string
  /** Empty where it is not known yet. */
  origin: string
  gives: 'all' | 'none' | 'map'
  givesMap: MapId | null
  takes: 'all' | 'chosen'
  intoMap: MapId
  branch: TopicId
  mayLose: boolean
  topicsSeen: string | null
  inStepAt: string | null
  asksToLose: boolean
  trouble: string | null
}

const COLUMNS = `
  c.id, c.collection, c.name, c.address, c.user_name AS "user", c.password, c.person, p.name AS "personName", c.zone, c.origin, c.gives,
  c.gives_map AS "givesMap", c.takes, c.into_map AS "intoMap", c.branch, c.may_lose AS "mayLose", c.topics_seen AS "topicsSeen",
  c.in_step_at AS "inStepAt", c.asks_to_lose AS "asksToLose", c.trouble`

/** The calendars of a collection, in the order of their names. */
export async function calendarsOf(collection: string): Promise<CalendarRow[]> {
  const { rows } = await database().query<CalendarRow>(
    `SELECT ${COLUMNS} FROM calendar c JOIN person p ON p.id = c.person WHERE c.collection = $1 ORDER BY c.name, c.id`,
    [collection],
  )
  return rows
}

/** Most calendars with which one collection is kept in step. */
export const MOST_CALENDARS = 10

/** Adds a calendar with a password as it was given, at which it is looked soon; returns its id. Null where it is there already, or there are too many. */
export async function insertCalendar(
  row: Omit<
    CalendarRow,
    'id' | 'personName' | 'branch' | 'mayLose' | 'topicsSeen' | 'inStepAt' | 'asksToLose' | 'trouble'
  >,
): Promise<string | null> {
  const id = uuid()
  const { rowCount } = await database().query(
    `INSERT INTO calendar (id, collection, name, address, user_name, password, person, zone, origin, gives, gives_map, takes, into_map, branch)
     SELECT $1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11, $12, $13, $14
     WHERE (SELECT count(*) FROM calendar WHERE collection = $2) < ${MOST_CALENDARS} ON CONFLICT (collection, address) DO NOTHING`,
    [
      ...[
        id,
        row.collection,
        row.name,
        row.address,
        row.user,
        seal(row.password, id),
        row.person,
        row.zone,
        row.origin,
      ],
      ...[row.gives, row.givesMap, row.takes, row.intoMap, uuid()],
    ],
  )
  return rowCount === 1 ? id : null
}

/**
 * What tells apart the topics that count for a calendar: those with a date and those that are in it, with their words, notes, and whether
 * they, or what is above them, lie in the trash.
 */
const TOPICS_SEEN = `(
  SELECT md5(COALESCE(string_agg(concat_ws(E'\\x1f', t.id, t.text, t.map, t.dates, t.task, md5(n.text), m.trashed, (
      WITH RECURSIVE above(parent, trashed) AS (
        SELECT t.parent, t.trashed UNION SELECT a.parent, a.trashed FROM above JOIN topic a ON a.collection = t.collection AND a.id = above.parent
      ) SELECT bool_or(trashed) FROM above)), E'\\x1e' ORDER BY t.id), ''))
  FROM topic t JOIN map m ON m.collection = t.collection AND m.id = t.map
  LEFT JOIN note n ON n.collection = t.collection AND n.id = t.note
  WHERE t.collection = c.collection AND (t.dates IS NOT NULL OR t.id IN (SELECT e.topic FROM calendar_entry e WHERE e.calendar = c.id)))`

/** How soon what was changed here goes there, and how often it is looked there what was changed, in s. */
const [SOON_S, OFTEN_S] = [10, 180]
/** The first and the longest pause after trouble, in s. */
const [PAUSE_S, LONGEST_PAUSE_S] = [30, 3_600]

/** Jobs for collections with calendars at which it is time to look, one each where there is none. Returns these collections. */
const ASK = `
  INSERT INTO job (id, collection, person, person_name, kind, label, input, state)
  SELECT gen_random_uuid(), due.collection, '00000000-0000-0000-0000-000000000000', '', 'keep calendars in step', 'Keep the calendars in step', 'null', 'waiting'
  FROM (
    SELECT DISTINCT c.collection FROM calendar c WHERE c.next_at <= now()
      OR (c.failures = 0 AND c.in_step_at < now() - make_interval(secs => ${SOON_S}) AND c.checked_number < (
        SELECT last FROM collection_counter k WHERE k.collection = c.collection))
  ) due
  ON CONFLICT DO NOTHING RETURNING collection`

export async function askForCalendars(): Promise<string[]> {
  const { rows } = await database().query<{ collection: string }>(ASK)
  return rows.map(({ collection }) => collection)
}

/**
 * Whether it is time to look at a calendar: because of the time, or because topics that count were changed; then it is looked at from now
 * on, and by nobody else for a while. Returns when it began; null where there is nothing to do.
 */
export async function beginLooking(calendar: string): Promise<string | null> {
  const { rows } = await database().query<{ began: string }>(
    `WITH due AS (
       SELECT c.id, last, c.next_at <= now() OR c.topics_seen IS DISTINCT FROM ${TOPICS_SEEN} AS due
       FROM calendar c JOIN collection_counter k ON k.collection = c.collection WHERE c.id = $1)
     UPDATE calendar c SET checked_number = due.last,
       next_at = CASE WHEN due.due THEN now() + make_interval(secs => ${PAUSE_S}) ELSE c.next_at END
     FROM due WHERE c.id = due.id AND (due.due OR c.checked_number < due.last) RETURNING CASE WHEN due.due THEN now()::text END AS began`,
    [calendar],
  )
  return rows[0]?.began ?? null
}

/** Asks that calendars are looked at as soon as may be: one, or all of a collection. */
export async function lookSoon(collection: string, calendar: string | null): Promise<void> {
  await database().query(
    `UPDATE calendar SET next_at = now(), asked_at = now(), failures = 0
     WHERE collection = $1 AND ($2::uuid IS NULL OR id = $2)`,
    [collection, calendar],
  )
}

/** Stores a password anew, sealed. */
export async function keepPassword(calendar: string, password: string): Promise<void> {
  await database().query('UPDATE calendar SET password = $2 WHERE id = $1', [calendar, seal(password, calendar)])
}

/** In how many s it is looked again, unless somebody asked for it meanwhile. */
const next = (began: string, seconds: string) =>
  `CASE WHEN asked_at > ${began}::timestamptz THEN now() ELSE now() + make_interval(secs => ${seconds}) END`

/** Notes that a calendar is in step; `isAll` unless something was left for the next time. */
export async function noteInStep(
  { id }: CalendarRow,
  { name, branch, began, isAll }: { name: string; branch: TopicId; began: string; isAll: boolean },
): Promise<void> {
  await database().query(
    `UPDATE calendar c SET name = $2, branch = $3, in_step_at = now(), failures = 0, trouble = NULL, may_lose = false, asks_to_lose = false,
       topics_seen = CASE WHEN $4 THEN ${TOPICS_SEEN} END, next_at = ${next('$5', `CASE WHEN $4 THEN ${OFTEN_S} ELSE ${SOON_S} END`)}
     WHERE id = $1`,
    [id, name, branch, isAll, began],
  )
}

/** Notes that a calendar could not be brought in step, and looks again after a pause that grows. */
export async function noteTrouble(
  { id }: CalendarRow,
  { trouble, asksToLose, began }: { trouble: string; asksToLose: boolean; began: string },
): Promise<void> {
  await database().query(
    `UPDATE calendar SET trouble = $2, asks_to_lose = $4, failures = failures + 1,
       next_at = ${next('$3', `least(${LONGEST_PAUSE_S}, ${PAUSE_S} * 2 ^ least(failures, 10))`)}
     WHERE id = $1`,
    [id, trouble.slice(0, 1_000), began, asksToLose],
  )
}

/** An entry as it was last seen in its calendar. */
export interface EntryRow {
  href: string
  etag: string
  body: string
  entry: CalendarEntry | null
  gone: boolean
  topic: TopicId | null
  agreed: Agreed | null
  conflict: ToldConflict | null
  chosen: Which | null
}

export async function entriesOf(calendar: string): Promise<EntryRow[]> {
  const { rows } = await database().query<EntryRow>(
    'SELECT href, etag, body, entry, gone, topic, agreed, conflict, chosen FROM calendar_entry WHERE calendar = $1 ORDER BY href',
    [calendar],
  )
  return rows
}

type Seen = Pick<EntryRow, 'href' | 'etag' | 'body' | 'entry'>

/** Keeps how entries were seen in their calendar just now. */
export async function keepSeen(on: Client, calendar: string, seen: readonly Seen[]): Promise<void> {
  await on.query(
    `INSERT INTO calendar_entry (calendar, href, etag, body, entry)
     SELECT $1, r.href, r.etag, r.body, r.entry FROM jsonb_to_recordset($2::jsonb) AS r(href text, etag text, body text, entry jsonb)
     ON CONFLICT (calendar, href) DO UPDATE
       SET etag = excluded.etag, body = excluded.body, entry = excluded.entry, gone = false`,
    [calendar, JSON.stringify(seen)],
  )
}

/** Entries that are in their calendar no more: those that go with a topic are kept until it was told. */
export async function keepGone(on: Client, calendar: string, hrefs: readonly string[]): Promise<void> {
  await on.query('DELETE FROM calendar_entry WHERE calendar = $1 AND href = ANY($2) AND topic IS NULL', [
    calendar,
    hrefs,
  ])
  await on.query('UPDATE calendar_entry SET gone = true WHERE calendar = $1 AND href = ANY($2)', [calendar, hrefs])
}

type Noted = Pick<EntryRow, 'href' | 'topic' | 'agreed' | 'conflict' | 'chosen'>

/** Keeps with which topics entries go, and what both sides agreed on. What was chosen since `chosen` was read stays for the next time. */
export async function keepPairs(on: Client, calendar: string, pairs: readonly Noted[]): Promise<void> {
  // First those that are let go: a topic goes with one entry of a calendar.
  const hrefs = pairs.map(({ href }) => href)
  await on.query('UPDATE calendar_entry SET topic = NULL WHERE calendar = $1 AND href = ANY($2)', [calendar, hrefs])
  await on.query(
    `UPDATE calendar_entry e SET topic = r.topic, agreed = r.agreed, conflict = r.conflict,
       chosen = CASE WHEN e.chosen IS DISTINCT FROM r.chosen THEN e.chosen END
     FROM jsonb_to_recordset($2::jsonb) AS r(href text, topic uuid, agreed jsonb, conflict jsonb, chosen text)
     WHERE e.calendar = $1 AND e.href = r.href`,
    [calendar, JSON.stringify(pairs)],
  )
  await on.query('DELETE FROM calendar_entry WHERE calendar = $1 AND gone AND topic IS NULL', [calendar])
}

/** One that was removed there because of what was done here: what it said is kept, so that it can come back. */
export async function keepRemoved(calendar: string, href: string): Promise<void> {
  await database().query(
    `UPDATE calendar_entry SET gone = true, agreed = NULL, conflict = NULL, chosen = NULL WHERE calendar = $1 AND href = $2`,
    [calendar, href],
  )
}
