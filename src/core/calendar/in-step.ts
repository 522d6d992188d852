import { type Planned, sameDates } from '../formats/calendar-entry'
import { mergeText } from '../text/merge-text'

/** What is on one side: here, on a topic, or there, in a calendar. */
export const FIELDS = ['text', 'note', 'dates', 'task'] as const
type Field = (typeof FIELDS)[number]

/** What each side said when the two were last in step: what one of them cannot say is not taken for a change. */
export interface Agreed {
  here: Planned
  there: Planned
}

export type Which = 'here' | 'there'

export interface Pair {
  /** Null where it is to be in the calendar no more. */
  here: Planned | null
  /** Null where it is in the calendar no more. */
  there: Planned | null
  /** Null where the two were never in step: then whatever both say, each in its own way, is for somebody to choose. */
  agreed: Agreed | null
  /** Whether the days there must not be written over. */
  isFixed: boolean
  /** Which side a person chose where both were changed. */
  chosen: Which | null
}

/** What both sides changed, each in its own way; or that one changed what the other took away. */
export type Conflict = { fields: Field[] } | { gone: Which }

export interface Step {
  /** What becomes of a side: fields that are set, all of it is taken away, or nothing. */
  here: Partial<Planned> | 'away' | null
  there: Partial<Planned> | 'away' | null
  /** What the two have agreed on when that is done; null where they are a pair no more. */
  agreed: Agreed | null
  conflict: Conflict | null
}

const same = (field: Field, a: Planned, b: Planned): boolean =>
  field === 'dates' ? sameDates(a.dates, b.dates) : a[field] === b[field]

const isChanged = (now: Planned, before: Planned): boolean => FIELDS.some((field) => !same(field, now, before))

const NOTHING_SAID: Planned = { text: '', note: '', dates: null, task: null }
const NOTHING_AGREED: Agreed = { here: NOTHING_SAID, there: NOTHING_SAID }

/**
 * Brings a topic and an entry of a calendar in step: what was changed on one side since they last were is done on the other, field by
 * field; what is new on one side comes to the other, and what one side took away goes on the other, unless that was changed there
 * meanwhile. Where both changed the same it is left alone on both sides until somebody has chosen; of notes that were changed in
 * different lines both changes stand.
 */
export function bringInStep({ here, there, agreed, isFixed, chosen }: Pair): Step {
  if (here && there) return fieldByField(here, there, agreed ?? NOTHING_AGREED, isFixed, chosen)
  if (!here && !there) return { here: null, there: null, agreed: null, conflict: null }
  return oneSided((here ?? there)!, here ? 'here' : 'there', agreed, chosen)
}

/** Of something that is on one side alone. */
function oneSided(left: Planned, side: Which, agreed: Agreed | null, chosen: Which | null): Step {
  const gone: Which = side === 'here' ? 'there' : 'here'
  const isNew = agreed === null
  if (!isNew && chosen === null && isChanged(left, agreed[side]))
    return { here: null, there: null, agreed, conflict: { gone } }
  const nothing = { here: null, there: null, agreed: null, conflict: null }
  if (isNew || chosen === side) return { ...nothing, [gone]: left, agreed: { here: left, there: left } }
  return { ...nothing, [side]: 'away' }
}

/** What a topic and an entry agree on that a person puts together: each keeps its words and its kind, of days nothing is agreed yet. */
export const putTogether = (here: Planned, there: Planned): Agreed => ({
  here: { ...here, dates: null },
  there: { ...there, dates: null, task: here.task === null ? null : there.task },
})

const orNothing = (part: Partial<Planned>): Partial<Planned> | null => (Object.keys(part).length > 0 ? part : null)

function fieldByField(here: Planned, there: Planned, agreed: Agreed, isFixed: boolean, chosen: Which | null): Step {
  const [toHere, toThere]: [Partial<Planned>, Partial<Planned>] = [{}, {}]
  const next: Agreed = { here: { ...agreed.here }, there: { ...agreed.there } }
  const fields: Field[] = []
  const take = <F extends Field>(field: F, ours: Planned[F], theirs: Planned[F]) => {
    if (!same(field, here, { ...here, [field]: ours })) toHere[field] = ours
    if (!same(field, there, { ...there, [field]: theirs })) toThere[field] = theirs
    next.here[field] = ours
    next.there[field] = theirs
  }
  const settle = <F extends Field>(field: F) => {
    const changedHere = !same(field, here, agreed.here)
    const changedThere = !same(field, there, agreed.there)
    const mustStay = field === 'dates' && isFixed && changedHere
    if (same(field, here, there) || (!changedHere && !changedThere)) take(field, here[field], there[field])
    else if (!changedHere) take(field, there[field], there[field])
    else if (!changedThere && !mustStay) take(field, here[field], here[field])
    else if (chosen === 'there') take(field, there[field], there[field])
    // Days that must not be written over stay as they are there, also beside others here.
    else if (chosen === 'here') take(field, here[field], mustStay ? there[field] : here[field])
    else fields.push(field)
  }
  settle('text')
  settle('dates')
  settle('task')
  const joined = joinedNote(here, there, agreed)
  if (joined === null) settle('note')
  else take('note', joined, joined)
  return {
    here: orNothing(toHere),
    there: orNothing(toThere),
    agreed: next,
    conflict: fields.length > 0 ? { fields } : null,
  }
}

/** A note that both sides changed in different lines; null where that is not so. */
function joinedNote(here: Planned, there: Planned, agreed: Agreed): string | null {
  const base = agreed.here.note
  if (base !== agreed.there.note || here.note === base || there.note === base) return null
  const { text, overlapping } = mergeText(base, there.note, here.note)
  return overlapping ? null : text
}
