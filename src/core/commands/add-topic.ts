import { refuse } from '../changes/problem'
import { TopicId } from '../records/ids'
import type { Records } from '../records/records'
import type { Place, TopicRecord } from '../records/topic'
import { freeNumberAfter } from '../tree/numbering'
import { rankAfter } from '../tree/rank'
import { ancestors } from '../tree/walk'
import { Draft, type Making, named, type Outcome } from './command'
import { hasSides } from './layouts'
import { sideForNew } from './sides'

/** A new record of a topic at a place, with nothing on it yet. */
export const blankTopic = (id: TopicId, place: Place, text: string): TopicRecord => ({
  id,
  place,
  text,
  note: null,
  opensMap: null,
  folded: false,
  layout: null,
  width: null,
  numbering: null,
  number: null,
  dates: null,
  look: null,
  branchLook: null,
  picture: null,
  badges: [],
  tags: [],
  held: false,
  task: null,
  trashed: false,
})

/** The place of a new child: directly after `after`, or last. */
function placeBelow(records: Records, parent: TopicRecord, after: TopicId | null | 'last'): Place {
  const siblings = records.childrenWithTrashed(parent.id)
  const neighbour = after === 'last' ? siblings.at(-1) : siblings.find((sibling) => sibling.id === after)
  return {
    map: parent.place.map,
    parent: parent.id,
    rank: rankAfter(records, parent.id, neighbour?.id ?? null),
    side: hasSides(parent) ? sideForNew(records, parent, after === 'last' ? undefined : neighbour) : null,
    x: null,
    y: null,
  }
}

/**
 * The next free number where the neighbours keep theirs: 1a between 1 and 2, 1a1 beneath 1a. Null where topics are
 * counted or carry no numbers.
 */
function proposedNumber(records: Records, parent: TopicRecord, after: TopicId | null | 'last'): string | null {
  const counted = [parent, ...ancestors(records, parent)].some(({ numbering }) => numbering !== null)
  if (counted || records.get('map', parent.place.map)?.numbering) return null
  const siblings = records.children(parent.id)
  const taken = new Set(siblings.flatMap(({ number }) => number ?? []))
  if (siblings.length === 0) return parent.number && freeNumberAfter(parent.number, taken)
  const index = after === 'last' ? siblings.length - 1 : siblings.findIndex(({ id }) => id === after)
  const before = siblings[index]?.number ?? null
  if (taken.size < siblings.length) return null
  const last = index === siblings.length - 1 && before !== null && /^\d+$/.test(before)
  const next = last ? String(Number(before) + 1) : null
  return next && !taken.has(next) ? next : freeNumberAfter(before, taken)
}

/** Adds a topic below `parent`: directly after the sibling `after`, first where that is null, or last. */
export function addTopic(
  records: Records,
  args: { parent: TopicId; after: TopicId | null | 'last'; text: string },
  making: Making,
): Outcome {
  const draft = new Draft(records, making)
  const parent = records.get('topic', args.parent) ?? refuse('gone', 'The topic that this one should hang on is gone.')
  if (parent.folded) draft.update('topic', parent.id, { folded: false })
  const place = placeBelow(records, parent, args.after)
  const number = proposedNumber(records, parent, args.after)
  const topic = draft.create('topic', { ...blankTopic(draft.newId(TopicId), place, args.text), number })
  return draft.outcome(`Add ${named(args.text)}`, [topic.id])
}
