import { refuse } from '../changes/problem'
import { type CalendarEntry, type Planned, sameDates } from '../formats/calendar-entry'
import { outlineItem } from '../formats/outline'
import type { MapId, TopicId } from '../records/ids'
import { cutText, MAX_NOTE_TEXT, MAX_TITLE, MAX_TOPIC_TEXT, storable } from '../records/text'
import type { TopicRecord } from '../records/topic'
import { isFollowable } from '../records/weblink'
import { command, type NewChange, named } from './command'
import { placesFor, unfold } from './hang'
import { plantOne } from './plant'
import { doneAs } from './set-task'
import { writeNote } from './write-note'

/** What comes to topics from a calendar. */
interface FromCalendar {
  /** What the calendar is called. */
  name: string
  /** The topic below which new ones hang; it is made below the root of the map where it is not there. */
  branch: { topic: TopicId; map: MapId }
  /** What is set on topics, with the note as the calendar last knew it; or that they are not in the calendar any more. */
  changed: readonly { topic: TopicId; planned: Partial<Planned> | 'away'; seenNote: string }[]
  added: readonly { topic: TopicId; entry: CalendarEntry }[]
  /** The day on which it is done, in ISO 8601. */
  today: string
}

/**
 * Takes over onto topics what was changed in a calendar with which they are kept in step, as one change. What left the calendar stays a
 * topic without a date. Refused where a topic, or the map, is gone. O(what is taken over).
 */
export const takeFromCalendar = command((change, { name, branch, changed, added, today }: FromCalendar) => {
  for (const { topic, planned, seenNote } of changed) {
    if (planned === 'away') takeOff(change, change.topic(topic))
    else setPlanned(change, change.topic(topic), planned, seenNote, today)
  }
  if (added.length > 0) {
    const parent = branchOf(change, branch, name)
    const places = placesFor(
      change.records,
      { parent, after: 'last' },
      added.map(() => 1),
    )
    added.forEach(({ topic, entry }, i) => {
      const links = isFollowable(entry.url) ? [{ title: '', address: entry.url }] : []
      plantOne(change, { ...outlineItem(entry.text), note: entry.note, links }, places[i]!, topic)
      change.update('topic', topic, { dates: entry.dates, task: entry.task })
    })
  }
  const count = changed.length + added.length
  const words = count === 1 ? named(change.topic(changed[0]?.topic ?? added[0]!.topic).text) : `${count} entries`
  return {
    label: `From the calendar ${named(name)}: ${words}`,
    select: [...changed, ...added].map(({ topic }) => topic),
  }
})

function branchOf(change: NewChange, { topic, map }: FromCalendar['branch'], name: string): TopicRecord {
  const known = change.records.get('topic', topic)
  if (known) return known
  const root =
    (change.map(map).trashed ? undefined : change.records.root(map)) ??
    refuse('gone', 'The map into which new entries of this calendar come is gone.')
  unfold(change, root)
  const [place] = placesFor(change.records, { parent: root, after: 'last' }, [1])
  return plantOne(change, outlineItem(cutText(storable(name), MAX_TITLE)), place!, topic)
}

/** It has a date, or is something to do, in the calendar only: that is what goes. */
function takeOff(change: NewChange, topic: TopicRecord): void {
  change.update('topic', topic.id, topic.dates ? { dates: null } : { task: null })
}

function setPlanned(
  change: NewChange,
  topic: TopicRecord,
  { text, note, dates, task }: Partial<Planned>,
  seenNote: string,
  today: string,
): void {
  if (text !== undefined) change.update('topic', topic.id, { text: cutText(storable(text), MAX_TOPIC_TEXT) })
  if (dates !== undefined && !sameDates(dates, topic.dates)) change.update('topic', topic.id, { dates })
  if (task !== undefined && task !== topic.task)
    change.update('topic', topic.id, { task, work: doneAs(topic, task, today) })
  if (note !== undefined)
    writeNote.within(change, { topic: topic.id, base: seenNote, text: cutText(storable(note), MAX_NOTE_TEXT) })
}
