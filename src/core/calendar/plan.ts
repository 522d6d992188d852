import { lastDay } from '../dates/agenda'
import type { CalendarEntry, Planned } from '../formats/calendar-entry'
import { type MapId, TopicId } from '../records/ids'
import type { Records } from '../records/records'
import type { TopicRecord } from '../records/topic'
import { dayNumber } from '../text/days'
import { isInTrash } from '../tree/walk'
import { type Agreed, bringInStep, type Conflict, putTogether, type Which } from './in-step'

/** How a calendar and a collection are kept in step. */
export interface Terms {
  /** Which topics with a date come into the calendar: all, those of one map, or none but those that are in it. */
  gives: 'all' | 'none' | { map: MapId }
  /** Whether all entries come to topics of their own, or only those wait for which somebody chooses a topic. */
  takes: 'all' | 'chosen'
  /** The topic below which those of new entries hang, once there are any. */
  branch: TopicId
}

/** An entry of a calendar as it was last seen there, with the topic that it belongs to. */
export interface Mirrored {
  /** Where it is in the calendar. */
  href: string
  /** Null where it could not be read. */
  entry: CalendarEntry | null
  isGone: boolean
  topic: TopicId | null
  /** Null where somebody has just put the two together, and of one that was removed there from here. */
  agreed: Agreed | null
  chosen: Which | null
}

/** What somebody has to choose about, with what is said on both sides. */
export interface ToldConflict {
  conflict: Conflict
  here: Planned | null
  there: Planned | null
}

/** What becomes of one entry, or of a topic that has none yet (its `href` is null then). */
export interface Paired {
  href: string | null
  /** Null where it belongs to none any more. */
  topic: TopicId | null
  agreed: Agreed | null
  conflict: ToldConflict | null
  /** What is to be written into the calendar, or that the entry is to go. */
  there: Planned | 'away' | null
}

/** What it takes to bring a collection and a calendar in step. */
export interface SyncPlan {
  /** The topic below which new ones hang: another one where the last lies in the trash. */
  branch: TopicId
  /** For `takeFromCalendar`. */
  changed: { topic: TopicId; planned: Partial<Planned> | 'away'; seenNote: string }[]
  added: { topic: TopicId; entry: CalendarEntry }[]
  pairs: Paired[]
}

/** Entries that were over for so many days when they were first seen do not come to topics by themselves. */
const PAST_DAYS = 31
/** A longer note stays out of the calendar. */
const MOST_NOTE = 20_000

const OWN_UID = /^([0-9a-f-]{36})@folvet$/
/** What tells the entry of a topic from all others, in every calendar. */
export const uidOf = (topic: TopicId): string => `${topic}@folvet`

function topicOfUid(uid: string): TopicId | null {
  const [, id] = OWN_UID.exec(uid) ?? []
  return TopicId.safeParse(id).data ?? null
}

interface Ids {
  /** The same topic for an entry each time: what was broken off is not done twice. */
  topicFor(uid: string): TopicId
  newTopic(): TopicId
}

/**
 * Works out what is to be done here and there, from the records of a whole collection and all entries of a calendar as they are now.
 * `today` is a date in ISO 8601. O(topics + entries).
 */
export function planSync(
  records: Records,
  entries: readonly Mirrored[],
  { gives, takes, branch, today, ...ids }: Terms & Ids & { today: string },
): SyncPlan {
  const isBranchLost = records.get('topic', branch) && !alive(records, branch)
  const plan: SyncPlan = { branch: isBranchLost ? ids.newTopic() : branch, changed: [], added: [], pairs: [] }
  const { stayed, left } = withMoved(entries)
  plan.pairs.push(...left.map(({ href }) => ({ href, topic: null, agreed: null, conflict: null, there: null })))
  const taken = new Set(stayed.flatMap(({ topic }) => topic ?? []))
  for (const mirrored of stayed) {
    const { href, entry } = mirrored
    const topic =
      mirrored.topic ?? (entry && !mirrored.isGone ? knownTopic(records, entry.uid, takes, ids, taken) : null)
    if (topic !== null) {
      taken.add(topic)
      const pair = bringPairInStep(records, mirrored, topic, ids, takes, plan)
      if (pair) plan.pairs.push(pair)
    } else if (entry && !mirrored.isGone && takes === 'all' && isStillAhead(entry, today)) {
      plan.pairs.push({ href, conflict: null, there: null, ...addedFor(records, entry, ids, plan) })
    }
  }
  for (const topic of given(records, gives)) {
    if (taken.has(topic.id)) continue
    const here = plannedOf(records, topic)
    plan.pairs.push({
      href: null,
      topic: topic.id,
      agreed: { here, there: here },
      conflict: null,
      there: here,
    })
  }
  return plan
}

/** Entries that are under another address now go on with their topics; the places that they left are told apart. */
function withMoved(entries: readonly Mirrored[]): { stayed: Mirrored[]; left: Mirrored[] } {
  const free = new Map(
    entries.flatMap((each) => (each.entry && !each.isGone && !each.topic ? [[each.entry.uid, each]] : [])),
  )
  const into = new Map<Mirrored, Mirrored>()
  const left: Mirrored[] = []
  for (const gone of entries) {
    const found = gone.isGone && gone.topic && gone.entry ? free.get(gone.entry.uid) : undefined
    if (!found || into.has(found)) continue
    into.set(found, gone)
    left.push(gone)
  }
  const lost = new Set(left)
  const stayed = entries.flatMap((each) => {
    const before = into.get(each)
    if (before) return { ...each, topic: before.topic, agreed: before.agreed }
    return lost.has(each) ? [] : each
  })
  return { stayed, left }
}

/** Topics with a date that are to be in the calendar. */
function* given(records: Records, gives: Terms['gives']): Generator<TopicRecord> {
  if (gives === 'none') return
  const topics = gives === 'all' ? records.all('topic') : records.topicsOf(gives.map)
  for (const topic of topics) if (topic.dates && !isInTrash(records, topic)) yield topic
}

const alive = (records: Records, id: TopicId): TopicRecord | null => {
  const topic = records.get('topic', id)
  return topic && !isInTrash(records, topic) ? topic : null
}

/** The topic of an entry that was put there, or taken over, before it was noted. */
function knownTopic(records: Records, uid: string, takes: Terms['takes'], ids: Ids, taken: ReadonlySet<string>) {
  const id = topicOfUid(uid) ?? (takes === 'all' ? ids.topicFor(uid) : null)
  return id !== null && !taken.has(id) && alive(records, id) ? id : null
}

function isStillAhead({ dates, task }: CalendarEntry, today: string): boolean {
  if (!dates) return task !== 'done'
  const last = dates.repeats ? (dates.repeats.until ?? today) : lastDay(dates)
  return dayNumber(last) >= dayNumber(today) - PAST_DAYS
}

function addedFor(records: Records, entry: CalendarEntry, ids: Ids, plan: SyncPlan) {
  const known = ids.topicFor(entry.uid)
  // Where a calendar has two of one uid, each is a topic.
  const isTaken = records.get('topic', known) || plan.added.some(({ topic }) => topic === known)
  const topic = isTaken ? ids.newTopic() : known
  plan.added.push({ topic, entry })
  return { topic, agreed: { here: plannedPart(entry), there: plannedPart(entry) } }
}

const plannedPart = ({ text, note, dates, task }: Planned): Planned => ({ text, note, dates, task })

function plannedOf(records: Records, { text, note, dates, task }: TopicRecord): Planned {
  const words = records.get('note', note)?.text ?? ''
  return { text, note: words.length > MOST_NOTE ? '' : words, dates, task }
}

/** What a topic says, as long as there is something about it that a calendar holds. */
function sayingOf(records: Records, topic: TopicId, { agreed, entry, isGone }: Mirrored): Planned | null {
  const found = alive(records, topic)
  if (!found) return null
  const wasDated = agreed ? agreed.here.dates !== null : isGone && entry?.dates !== null
  const isNew = agreed === null && !isGone
  const isHeld = isNew || found.dates !== null || (!wasDated && found.task !== null)
  return isHeld ? plannedOf(records, found) : null
}

function bringPairInStep(
  records: Records,
  mirrored: Mirrored,
  topic: TopicId,
  ids: Ids,
  takes: Terms['takes'],
  plan: SyncPlan,
): Paired | null {
  const { href, entry, isGone, agreed, chosen } = mirrored
  // One that cannot be read any more is left alone.
  if (!entry && !isGone) return null
  const there = isGone ? null : entry && plannedPart(entry)
  const here = sayingOf(records, topic, mirrored)
  // One that was removed there from here is kept in mind as long as the topic can come back.
  if (isGone && agreed === null && !here && records.get('topic', topic)) return null
  const isPut = mirrored.topic !== null && agreed === null && here !== null && there !== null
  const step = bringInStep({
    here,
    there,
    agreed: isPut ? putTogether(here, there) : agreed,
    isFixed: entry?.isFixed ?? false,
    chosen,
  })
  const conflict = step.conflict && { conflict: step.conflict, here, there }
  if (step.here !== null) {
    const found = alive(records, topic)
    if (!found && entry && step.here !== 'away')
      return { href, conflict, there: null, ...addedFor(records, entry, ids, plan) }
    plan.changed.push({ topic, planned: step.here, seenNote: agreed?.there.note ?? '' })
  }
  if (step.there === 'away') {
    // What began there stays there, where only what was chosen came here.
    const isOurs = entry !== null && topicOfUid(entry.uid) !== null
    const isLetGo = takes === 'chosen' && !isOurs
    return { href, topic: isLetGo ? null : topic, agreed: null, conflict, there: isLetGo ? null : 'away' }
  }
  const writes = step.there === null ? null : { ...(there ?? step.agreed!.there), ...step.there }
  return { href, topic: step.agreed || conflict ? topic : null, agreed: step.agreed, conflict, there: writes }
}
