import { randomUUID } from 'node:crypto'
import ICAL from 'ical.js'
import { Refused } from './store.mjs'

const escaped = (text) =>
  text.replace(/[&<>"']/g, (sign) => ({ '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;', "'": '&#39;' })[sign])

/** The part of an entry that stands for all its times. */
function masterOf(text) {
  const calendar = new ICAL.Component(ICAL.parse(text))
  const parts = [...calendar.getAllSubcomponents('vevent'), ...calendar.getAllSubcomponents('vtodo')]
  return { calendar, part: parts.find((each) => !each.hasProperty('recurrence-id')) ?? parts[0] }
}

const whenOf = (part) => part.getFirstProperty('dtstart') ?? part.getFirstProperty('due')

function rowOf([name, { text }]) {
  const { part } = masterOf(text)
  const when = whenOf(part)?.getFirstValue()
  return {
    name,
    words: String(part.getFirstPropertyValue('summary') ?? ''),
    day: when ? when.toString().slice(0, 10) : '',
    time: when && !when.isDate ? when.toString().slice(11, 16) : '',
    isTask: part.name === 'vtodo',
    isDone: String(part.getFirstPropertyValue('status')) === 'COMPLETED',
    repeats: part.hasProperty('rrule'),
  }
}

const STYLE = `
  body { font: 16px/1.5 system-ui, sans-serif; max-width: 56rem; margin: 2rem auto; padding: 0 1rem; color: #222; background: #fff }
  h1 { font-size: 1.4rem } h2 { font-size: 1.1rem; margin-top: 2rem }
  form { display: flex; flex-wrap: wrap; gap: .5rem; align-items: center; margin: .4rem 0 }
  input:not([type=checkbox]) { font: inherit; padding: .2rem .4rem; border: 1px solid #888; border-radius: 3px; min-width: 0 }
  input[name=words] { flex: 1 1 12rem } button { font: inherit; padding: .2rem .7rem } code { overflow-wrap: anywhere }
  small { color: #555 }
  @media (prefers-color-scheme: dark) { body { color: #eee; background: #1b1b1b } small { color: #bbb } }`

/** A page on which a person sees and changes what is in the calendars. `origin` is where this server is reached. */
export function page(store, origin, said = '') {
  const calendars = [...store.calendars].map(([calendar, entries]) => {
    const rows = [...entries].map(rowOf).sort((a, b) => (a.day + a.time + a.words < b.day + b.time + b.words ? -1 : 1))
    const action = `/calendars/${escaped(calendar)}/`
    const forms = rows.map(({ name, words, day, time, isTask, isDone, repeats }) => {
      const label = escaped(words || 'Untitled')
      return `<form method="post" action="${action}">
        <input type="hidden" name="name" value="${escaped(name)}">
        <input name="words" aria-label="Words of ${label}" value="${escaped(words)}">
        <input type="date" name="day" aria-label="Day of ${label}" value="${day}">
        <input type="time" name="time" aria-label="Time of ${label}" value="${time}">
        ${isTask ? `<label><input type="checkbox" name="done"${isDone ? ' checked' : ''}> done</label>` : ''}
        ${repeats ? '<small>repeats</small>' : ''}
        <button name="act" value="change" aria-label="Change ${label}">Change</button>
        <button name="act" value="remove" aria-label="Remove ${label}">Remove</button>
      </form>`
    })
    return `<section aria-label="${escaped(calendar)}">
      <h2>${escaped(calendar.replaceAll('-', ' '))}</h2>
      <p><small>Its address for other programs: <code>${escaped(origin + action)}</code></small></p>
      ${forms.join('\n')}
      <form method="post" action="${action}">
        <input name="words" aria-label="Words of a new entry" placeholder="A new entry" required>
        <input type="date" name="day" aria-label="Its day" required>
        <input type="time" name="time" aria-label="Its time">
        <label><input type="checkbox" name="task"> to do</label>
        <button name="act" value="add">Add</button>
      </form></section>`
  })
  return `<!doctype html><html lang="en"><meta charset="utf-8"><meta name="viewport" content="width=device-width">
    <title>A small calendar</title><style>${STYLE}</style>
    <h1>A small calendar</h1>
    <p>It stands in for the calendar that you have elsewhere, so that a collection can be tried with one. It keeps no secrets: whoever
    can reach this address sees and changes all of it.</p>
    ${said ? `<p role="status"><strong>${escaped(said)}</strong></p>` : ''}
    ${calendars.join('\n')}</html>`
}

const timeAt = (day, time) => (time ? ICAL.Time.fromDateTimeString(`${day}T${time}:00`) : ICAL.Time.fromDateString(day))

/** Does what a form of the page asks for, and says what was done. Throws a Refused. */
export function actOn(store, calendar, form) {
  const entries = store.calendars.get(calendar)
  if (!entries) throw new Refused(404, 'There is no such calendar.')
  const [act, words, day, time] = ['act', 'words', 'day', 'time'].map((field) => form.get(field) ?? '')
  if (act !== 'remove' && (!/^\d{4}-\d\d-\d\d$/.test(day) || !/^(\d\d:\d\d)?$/.test(time)))
    throw new Refused(400, 'An entry has a day, and may have a time.')
  if (act === 'add') {
    const name = `${randomUUID()}.ics`
    store.put(calendar, name, newEntry({ uid: name.slice(0, -4), words, day, time, isTask: form.has('task') }))
    return `${words} was added.`
  }
  const name = form.get('name') ?? ''
  const found = entries.get(name)
  if (!found) throw new Refused(404, 'This entry is not there any more.')
  if (act === 'remove') store.remove(calendar, name)
  else store.put(calendar, name, changed(found.text, { words, day, time, isDone: form.has('done') }))
  return act === 'remove' ? `${words} was removed.` : `${words} was changed.`
}

/** An entry of one event or to-do in iCalendar. */
export function newEntry({ uid, words, day, time, isTask, rule }) {
  const calendar = new ICAL.Component(['vcalendar', [], []])
  calendar.updatePropertyWithValue('version', '2.0')
  calendar.updatePropertyWithValue('prodid', '-//Folvet//A small calendar//EN')
  const part = new ICAL.Component(isTask ? 'vtodo' : 'vevent')
  part.updatePropertyWithValue('uid', uid)
  part.updatePropertyWithValue('dtstamp', ICAL.Time.fromJSDate(new Date(), true))
  part.updatePropertyWithValue('summary', words)
  part.updatePropertyWithValue(isTask ? 'due' : 'dtstart', timeAt(day, time))
  if (isTask) part.updatePropertyWithValue('status', 'NEEDS-ACTION')
  if (rule) part.updatePropertyWithValue('rrule', ICAL.Recur.fromString(rule))
  calendar.addSubcomponent(part)
  return `${calendar.toString()}\r\n`
}

function changed(text, { words, day, time, isDone }) {
  const { calendar, part } = masterOf(text)
  const first = whenOf(part)
  const before = first?.getFirstValue()
  const after = timeAt(day, time)
  part.updatePropertyWithValue('summary', words)
  if (!before || before.toString() !== after.toString()) {
    // What ends later is as long as it was, where both are told alike.
    for (const name of ['dtend', 'due']) {
      const last = part.getFirstProperty(name)
      if (!last || last === first) continue
      const end = last.getFirstValue()
      if (before.isDate === after.isDate && end.isDate === after.isDate) {
        const moved = end.clone()
        moved.addDuration(after.subtractDate(before))
        last.setValue(moved)
      } else part.removeProperty(last)
    }
    if (first) first.setValue(after)
    else part.updatePropertyWithValue('dtstart', after)
  }
  if (part.name === 'vtodo' && isDone !== (String(part.getFirstPropertyValue('status')) === 'COMPLETED'))
    part.updatePropertyWithValue('status', isDone ? 'COMPLETED' : 'NEEDS-ACTION')
  part.updatePropertyWithValue('sequence', Number(part.getFirstPropertyValue('sequence') ?? 0) + 1)
  return `${calendar.toString()}\r\n`
}
