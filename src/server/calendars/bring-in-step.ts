import { isDeepStrictEqual } from 'node:util'
import { v7 as uuid, v5 as uuidFrom } from 'uuid'
import { type Agreed, FIELDS } from '../../core/calendar/in-step'
import { type Paired, planSync, type SyncPlan, type ToldConflict, uidOf } from '../../core/calendar/plan'
import { takeFromCalendar } from '../../core/commands/take-from-calendar'
import { type Planned, readEntry, writeEntry } from '../../core/formats/calendar-entry'
import { TopicId } from '../../core/records/ids'
import { reachesAll } from '../../core/rights/grant'
import { wholeCollection } from '../collections'
import { unlimited } from '../commit/commit-changes'
import { submitChange } from '../commit/queue'
import { database, transaction } from '../database'
import { canSeal, isSealed, unseal } from '../outgoing/sealed'
import { reachesOf } from '../people/rights'
import {
  CalendarTrouble,
  ChangedMeanwhile,
  type Listing,
  listEntries,
  putEntry,
  readEntries,
  removeEntry,
} from './caldav'
import {
  type CalendarRow,
  type EntryRow,
  entriesOf,
  keepGone,
  keepPairs,
  keepPassword,
  keepRemoved,
  keepSeen,
  noteInStep,
} from './calendar-rows'

/** Of all entries of a calendar so many letters are kept. */
const MOST_LETTERS = 20_000_000
/** How often it is worked out anew because somebody changed the collection meanwhile. */
const MOST_ATTEMPTS = 4
/** So many of them, or half, may go on one side at once before a person is asked whether that is meant. */
const MOST_GONE = 10
const areMost = (gone: number, pairs: number): boolean => gone > Math.max(MOST_GONE, pairs / 2)

/**
 * Brings a collection and a calendar elsewhere in step. What is there is read first, and kept; then what that comes to here is committed as
 * one change like any other; then what was changed here is written there, each entry only as it was last seen. It can be broken off
 * anywhere, and is after `end` (ms since 1970): the next time finds what was done. `began` is when it was looked. Throws a CalendarTrouble.
 */
export async function bringCalendarInStep(row: CalendarRow, began: string, end: number): Promise<void> {
  await checkPerson(row)
  const calendar = { ...row, password: await passwordOf(row) }
  const listing = await listEntries(calendar)
  const isRead = await seeEntries(calendar, listing, end)
  const entries = await entriesOf(calendar.id)
  const plan = await takeOver(calendar, entries)
  const isWritten = await writeThere(calendar, listing, plan, entries, end)
  await noteInStep(calendar, { name: listing.name, branch: plan.branch, began, isAll: isRead && isWritten })
}

async function checkPerson({ collection, person, personName }: CalendarRow): Promise<void> {
  const [reach] = await reachesOf(database(), collection, [person])
  if (!reachesAll(reach!, 'editor'))
    throw new CalendarTrouble(
      `It was kept in step in the name of ${personName}, who may not change all of this any more.`,
    )
}

/** The password that opens a calendar. One that was stored before the server had a key is sealed from now on. */
async function passwordOf({ id, password }: CalendarRow): Promise<string> {
  if (password === '') return ''
  if (!isSealed(password)) {
    if (canSeal) await keepPassword(id, password)
    return password
  }
  const opened = unseal(password, id)
  if (opened === null)
    throw new CalendarTrouble(
      'Its password cannot be read any more: this server has another key than before. Let the calendar go, and connect it anew.',
    )
  return opened
}

/** Reads what is new or was changed there; false where time ran out. */
async function seeEntries(calendar: CalendarRow, { etags }: Listing, end: number): Promise<boolean> {
  const known = new Map((await entriesOf(calendar.id)).map((row) => [row.href, row]))
  const gone = [...known.values()].filter(({ href, gone }) => !gone && !etags.has(href))
  const pairs = [...known.values()].filter(({ topic }) => topic !== null).length
  const lost = gone.filter(({ topic }) => topic !== null).length
  if (areMost(lost, pairs) && !calendar.mayLose)
    throw new MostIsGone(
      `${lost} of ${pairs} entries that go with topics are not there any more. Nothing was changed here.`,
    )
  await transaction((client) =>
    keepGone(
      client,
      calendar.id,
      gone.map(({ href }) => href),
    ),
  )
  const fresh = [...etags].filter(([href, etag]) => {
    const row = known.get(href)
    return !row || row.gone || row.etag !== etag || etag === ''
  })
  let letters = [...known.values()].reduce((sum, { body }) => sum + body.length, 0)
  for await (const some of readEntries(
    calendar,
    fresh.map(([href]) => href),
  )) {
    letters += some.reduce((sum, { body }) => sum + body.length, 0)
    if (letters > MOST_LETTERS) throw new CalendarTrouble('This calendar holds more text than can be kept in step.')
    const seen = some.map((read) => ({ ...read, entry: readEntry(read.body, calendar.zone) }))
    await transaction((client) => keepSeen(client, calendar.id, seen))
    if (Date.now() > end) return false
  }
  return true
}

/** Works out what is to be done on both sides, and commits what is to be done here. */
async function takeOver(calendar: CalendarRow, rows: readonly EntryRow[]): Promise<SyncPlan> {
  const author = unlimited({ id: calendar.person, name: calendar.personName })
  const today = new Intl.DateTimeFormat('sv-SE', { timeZone: calendar.zone, dateStyle: 'short' }).format(new Date())
  for (let attempt = 1; ; attempt++) {
    const { records, number } = await wholeCollection(calendar.collection)
    const plan = planSync(
      records,
      rows.map(({ gone, ...row }) => ({ ...row, isGone: gone })),
      {
        gives: calendar.gives === 'map' ? { map: calendar.givesMap! } : calendar.gives,
        takes: calendar.takes,
        branch: calendar.branch,
        today,
        topicFor: (uid) => TopicId.parse(uuidFrom(uid, calendar.collection)),
        newTopic: () => TopicId.parse(uuid()),
      },
    )
    const { changed, added, branch } = plan
    const [lost, pairs] = [plan.pairs.filter(({ there }) => there === 'away').length, plan.pairs.length]
    if (areMost(lost, pairs) && !calendar.mayLose)
      throw new MostIsGone(
        `${lost} of ${pairs} topics that go with entries lost their dates here, or were trashed. Nothing was removed there.`,
      )
    if (changed.length + added.length > 0) {
      const args = { name: calendar.name, branch: { topic: branch, map: calendar.intoMap }, changed, added, today }
      const { change } = takeFromCalendar(records, args, { newId: uuid })
      const isLast = attempt === MOST_ATTEMPTS
      const result = await submitChange(calendar.collection, {
        change,
        author,
        asOf: isLast ? null : number,
        isExact: isLast,
      })
      if (!result.ok && result.problem.code === 'moved' && !isLast) continue
      if (!result.ok) throw new CalendarTrouble(result.problem.message)
    }
    // What is still to be written there is in step when it is.
    const known = new Map(rows.map((row) => [row.href, row]))
    const settled = plan.pairs.flatMap(({ href, there, ...pair }) => {
      const row = known.get(href ?? '')
      return row && !there && isOther(row, pair) ? { ...pair, href: row.href, chosen: row.chosen } : []
    })
    await transaction((client) => keepPairs(client, calendar.id, settled))
    return plan
  }
}

/** Most of what goes together is gone on one side: somebody has to say that it is meant. */
export class MostIsGone extends CalendarTrouble {}

const isOther = (row: EntryRow, { topic, agreed, conflict }: Omit<Paired, 'href' | 'there'>): boolean =>
  row.topic !== topic ||
  !isDeepStrictEqual([row.agreed, row.conflict], [agreed, conflict]) ||
  row.chosen !== null ||
  row.gone

/** After so many troubles one after the other no more is tried. */
const MOST_TROUBLES = 3

/** Writes into the calendar what was changed here. False where time ran out, or somebody changed an entry there meanwhile. */
async function writeThere(
  calendar: CalendarRow,
  { takesTasks }: Listing,
  { pairs }: SyncPlan,
  entries: readonly EntryRow[],
  end: number,
): Promise<boolean> {
  const known = new Map(entries.map((row) => [row.href, row]))
  const troubles: string[] = []
  let isAll = true
  for (const pair of pairs) {
    if (!pair.there) continue
    if (Date.now() > end || troubles.length >= MOST_TROUBLES) return endWriting(troubles, false)
    try {
      await writeOne(calendar, pair, known.get(pair.href ?? '') ?? null, takesTasks)
    } catch (error) {
      if (error instanceof ChangedMeanwhile) isAll = false
      else if (error instanceof CalendarTrouble) troubles.push(error.message)
      else throw error
    }
  }
  return endWriting(troubles, isAll)
}

function endWriting([first, ...others]: readonly string[], isAll: boolean): boolean {
  if (first === undefined) return isAll
  throw new CalendarTrouble(
    `${others.length === 0 ? 'An entry' : 'Several entries'} could not be written there: ${first}`,
  )
}

async function writeOne(
  calendar: CalendarRow,
  { href, topic, agreed, conflict, there }: Paired,
  row: EntryRow | null,
  takesTasks: boolean,
): Promise<void> {
  if (there === 'away') {
    if (row && !row.gone) await removeEntry(calendar, row.href, row.etag)
    await keepRemoved(calendar.id, href!)
    return
  }
  const at = href ?? `${calendar.address}${topic}.ics`
  const isThere = row !== null && !row.gone
  const planned = takesTasks ? there! : { ...there!, task: null }
  const body = writeEntry(planned, {
    // One that comes back says again what it said.
    before: row?.body ?? null,
    uid: row?.entry?.uid ?? uidOf(topic!),
    url: calendar.origin === '' ? '' : `${calendar.origin}/c/${calendar.collection}?topic=${topic}`,
    stamp: new Date().toISOString(),
    zone: calendar.zone,
  })
  const etag = await putEntry(calendar, at, body, isThere ? row.etag : null)
  const entry = readEntry(body, calendar.zone)
  await transaction(async (client) => {
    await keepSeen(client, calendar.id, [{ href: at, etag, body, entry }])
    await keepPairs(client, calendar.id, [
      { href: at, topic, agreed: agreed && asWritten(agreed, entry!, conflict), conflict, chosen: row?.chosen ?? null },
    ])
  })
}

/** What was agreed on, as the calendar says it now: it can say some of it otherwise. */
function asWritten(agreed: Agreed, entry: Planned, told: ToldConflict | null): Agreed {
  const open = told && 'fields' in told.conflict ? told.conflict.fields : []
  const there = Object.fromEntries(FIELDS.map((field) => [field, (open.includes(field) ? agreed.there : entry)[field]]))
  return { ...agreed, there: there as unknown as Planned }
}
