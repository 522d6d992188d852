import { TopicId } from '../records/ids'
import type { Records } from '../records/records'
import type { TopicRecord } from '../records/topic'
import { freeNumberAfter } from '../tree/numbering'
import { ancestors } from '../tree/walk'
import { blankTopic } from './blank-topic'
import { command, named } from './command'
import { placesFor, unfold } from './hang'

type Behind = TopicId | null | 'last'

/**
 * The next free number where the neighbours keep theirs: 1a between 1 and 2, 1a1 beneath 1a. Null where topics are
 * counted or carry no numbers.
 */
function proposedNumber(records: Records, parent: TopicRecord, after: Behind): string | null {
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

/**
 * Adds a topic below `parent`: directly after the sibling `after`, first where that is null, or last. Refused where
 * the parent is gone. O(children of the parent and what they show).
 */
export const addTopic = command((change, args: { parent: TopicId; after: Behind; text: string }) => {
  const parent = change.topic(args.parent, 'The topic that this one should hang on is gone.')
  const [place] = placesFor(change.records, { parent, after: args.after }, [1])
  const number = proposedNumber(change.records, parent, args.after)
  const topic = change.create('topic', { ...blankTopic(change.newId(TopicId), place!, args.text), number })
  unfold(change, parent)
  return { label: `Add ${named(args.text)}`, select: [topic.id] }
})
