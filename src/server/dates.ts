import { z } from 'zod'
import { writeCalendar } from '../core/formats/icalendar'
import type { Dates, TaskState, Work } from '../core/records/dates'
import { MapId } from '../core/records/ids'
import { mayRead, onlyMaps } from '../core/rights/grant'
import { noteBeginning } from '../core/text/note-beginning'
import { digestOf } from './collections'
import { prepared, snapshot } from './database'
import { dispositionOf } from './files/serve-content'
import type { Member } from './http/endpoint'
import { Failure } from './http/failure'
import type { Reply } from './http/reply'

/** A topic with a day. */
export interface DatedTopic {
  topic: string
  text: string
  map: string
  mapTitle: string
  dates: Dates
  task: TaskState | null
  work: Work | null
  tags: string[]
}

/** Of a collection so many are told, those that come first in time last left out. */
const MOST = 5_000

const DATED = `
  SELECT t.id AS topic, t.text, t.map, m.title AS "mapTitle", t.dates, t.task, t.work, t.tags, n.text AS note
  FROM topic t JOIN map m ON m.collection = $1 AND m.id = t.map AND NOT m.trashed
  LEFT JOIN note n ON n.collection = $1 AND n.id = t.note
  WHERE t.collection = $1 AND NOT t.trashed AND t.dates IS NOT NULL AND ($2::uuid[] IS NULL OR t.map = ANY($2))
    AND ($3::uuid IS NULL OR t.map = $3)
    AND NOT EXISTS (
      WITH RECURSIVE above(parent, trashed) AS (
        SELECT t.parent, false UNION SELECT a.parent, a.trashed FROM above JOIN topic a ON a.collection = $1 AND a.id = above.parent
      ) SELECT 1 FROM above WHERE trashed)
  ORDER BY t.dates->>'start' DESC, t.id LIMIT ${MOST}`

async function dated(
  { collection, reach }: Member,
  map: string | null,
): Promise<(DatedTopic & { note: string | null })[]> {
  const given = [collection, onlyMaps(reach), map]
  return (await snapshot((client) => prepared<DatedTopic & { note: string | null }>(client, DATED, given))).rows
}

/** All topics with a day that are open to somebody, the latest first. */
export async function datesOf(member: Member): Promise<DatedTopic[]> {
  return (await dated(member, null)).map(({ note: _, ...row }) => row)
}

/** What a calendar is asked for: of one map, or of all. */
export const CalendarAsked = z.object({ map: MapId.nullable() })

/** Of a note so many letters go into a calendar. */
const NOTE_LETTERS = 1_000

/** The days of a collection, or of one map, as iCalendar. Each leads back to its topic, at the address where it was asked for. */
export async function calendarFor(member: Member, map: string | null, origin: string): Promise<Reply> {
  if (map && !mayRead(member.reach, map)) throw new Failure(404, 'There is no such map, or it is not open to you.')
  const [rows, { collection }] = await Promise.all([dated(member, map), digestOf(member)])
  const name = (map && rows[0]?.mapTitle) || collection.title
  const items = rows.map(({ topic, text, dates, task, note, map: of }) => ({
    uid: `${topic}@folvet`,
    text: text || 'Untitled',
    note: noteBeginning(note ?? '', NOTE_LETTERS),
    dates,
    task,
    url: `${origin}/c/${member.collection}/m/${of}?topic=${topic}`,
  }))
  return {
    status: 200,
    headers: {
      'Content-Type': 'text/calendar; charset=utf-8',
      'Content-Disposition': dispositionOf('attachment', 'dates.ics'),
      'Cache-Control': 'no-store',
    },
    body: writeCalendar(name, items, new Date().toISOString()),
  }
}
