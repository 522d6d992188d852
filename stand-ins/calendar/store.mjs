import { createHash } from 'node:crypto'
import { mkdirSync, readdirSync, readFileSync, renameSync, rmSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import ICAL from 'ical.js'

/** Names of calendars and entries are parts of addresses and of paths. */
const NAME = /^[A-Za-z0-9][A-Za-z0-9._@-]{0,199}$/
/** Of one entry, in letters, of one calendar, in entries, and of calendars. */
const [MOST_LETTERS, MOST_ENTRIES, MOST_CALENDARS] = [500_000, 20_000, 100]

/** What cannot be stored, with the status of HTTP that says so. */
export class Refused extends Error {
  constructor(status, message) {
    super(message)
    this.status = status
  }
}

const etagOf = (text) => `"${createHash('sha256').update(text).digest('hex').slice(0, 24)}"`

/**
 * Calendars as folders of iCalendar files, one an entry, held in memory as well. A calendar is a Map of names to
 * `{ text, etag, uid }` under its own name.
 */
export class CalendarStore {
  calendars = new Map()

  constructor(folder) {
    this.folder = folder
    mkdirSync(folder, { recursive: true })
    for (const { name } of readdirSync(folder, { withFileTypes: true }).filter((each) => each.isDirectory())) {
      const entries = new Map()
      for (const file of readdirSync(join(folder, name)).filter((each) => each.endsWith('.ics'))) {
        const text = readFileSync(join(folder, name, file), 'utf8')
        entries.set(file, { text, etag: etagOf(text), uid: uidIn(text) })
      }
      this.calendars.set(name, entries)
    }
  }

  /** Makes an empty calendar. Throws a Refused where there is one of its name, or it cannot be one. */
  make(calendar) {
    if (!NAME.test(calendar)) throw new Refused(403, 'This is no name for a calendar.')
    if (this.calendars.has(calendar)) throw new Refused(405, 'There is such a calendar already.')
    if (this.calendars.size >= MOST_CALENDARS) throw new Refused(507, 'There are too many calendars.')
    mkdirSync(join(this.folder, calendar), { recursive: true })
    this.calendars.set(calendar, new Map())
  }

  /** Makes a calendar with entries by their names, where there is none of its name. */
  begin(calendar, entries) {
    if (this.calendars.has(calendar)) return
    this.make(calendar)
    for (const [name, text] of Object.entries(entries)) this.put(calendar, name, text)
  }

  /** Changes with every change of a calendar. */
  tagOf(calendar) {
    const tags = [...this.calendars.get(calendar)].map(([name, { etag }]) => name + etag).sort()
    return etagOf(tags.join('\n')).slice(1, -1)
  }

  /** Stores an entry; true where it is new. Throws a Refused for what is none, or stands under another name already. */
  put(calendar, name, text) {
    const entries = this.calendars.get(calendar)
    if (!entries) throw new Refused(409, 'There is no such calendar.')
    if (!NAME.test(name) || !name.endsWith('.ics')) throw new Refused(403, 'This is no name for an entry.')
    if (text.length > MOST_LETTERS) throw new Refused(413, 'This entry is too long.')
    const uid = uidIn(text)
    for (const [other, entry] of entries)
      if (other !== name && entry.uid === uid) throw new Refused(409, 'There is an entry with this uid already.')
    const isNew = !entries.has(name)
    if (isNew && entries.size >= MOST_ENTRIES) throw new Refused(507, 'This calendar is full.')
    const path = join(this.folder, calendar, name)
    writeFileSync(`${path}.new`, text)
    renameSync(`${path}.new`, path)
    entries.set(name, { text, etag: etagOf(text), uid })
    return isNew
  }

  remove(calendar, name) {
    rmSync(join(this.folder, calendar, name))
    this.calendars.get(calendar).delete(name)
  }
}

/** What tells an entry from all others. Throws a Refused for what is no entry of a calendar. */
function uidIn(text) {
  try {
    const calendar = new ICAL.Component(ICAL.parse(text))
    const parts = [...calendar.getAllSubcomponents('vevent'), ...calendar.getAllSubcomponents('vtodo')]
    const uids = new Set(parts.map((part) => part.getFirstPropertyValue('uid')))
    const [uid] = uids
    if (calendar.name === 'vcalendar' && uids.size === 1 && typeof uid === 'string' && uid !== '') return uid
  } catch {
    // Said below.
  }
  throw new Refused(403, 'This is no entry of a calendar: one event or to-do with a uid, in iCalendar.')
}
