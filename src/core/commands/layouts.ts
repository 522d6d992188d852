import { refuse } from '../changes/problem'
import type { MapId, TopicId } from '../records/ids'
import type { LayoutKind } from '../records/layout'
import type { Records } from '../records/records'
import { isRoot, type TopicRecord } from '../records/topic'
import { Draft, type Making, named, type Outcome } from './command'
import { evenSidesOf } from './sides'

/** The layouts as people read them. */
export const LAYOUT_NAMES: Record<LayoutKind, string> = {
  both: 'to both sides',
  right: 'to the right',
  left: 'to the left',
  down: 'top down',
  up: 'bottom up',
  around: 'around the centre',
  indented: 'indented',
  time: 'along time',
}

const sharesOut = (layout: LayoutKind | null) => layout === 'both' || layout === 'around'

/** Whether the children of a topic are shared out to two sides, so that each of them has one. */
export const hasSides = (topic: TopicRecord): boolean => isRoot(topic) || sharesOut(topic.layout)

function shareOut(draft: Draft, parent: TopicRecord): void {
  const children = draft.records.children(parent.id)
  evenSidesOf(draft.records, children).forEach((side, i) => {
    const child = children[i]!
    if (child.place.side === null) draft.update('topic', child.id, { place: { ...child.place, side } })
  })
}

/** Sets a whole map in another way. Branches with a layout of their own keep it. */
export function setMapLayout(records: Records, args: { map: MapId; layout: LayoutKind }, making: Making): Outcome {
  const draft = new Draft(records, making)
  draft.update('map', args.map, { layout: args.layout })
  const root = records.root(args.map)
  if (root && sharesOut(args.layout)) shareOut(draft, root)
  return draft.outcome(`Set the map ${LAYOUT_NAMES[args.layout]}`, root ? [root.id] : [])
}

/** Gives branches a layout of their own; null lets them follow what is around them. */
export function setBranchLayout(
  records: Records,
  args: { topics: TopicId[]; layout: LayoutKind | null },
  making: Making,
): Outcome {
  const draft = new Draft(records, making)
  for (const id of args.topics) {
    const topic = records.get('topic', id) ?? refuse('gone', 'This topic is gone.')
    draft.update('topic', topic.id, { layout: args.layout })
    if (sharesOut(args.layout)) shareOut(draft, topic)
  }
  const first = records.need('topic', args.topics[0] ?? null)
  const label = args.layout
    ? `Set ${named(first.text)} ${LAYOUT_NAMES[args.layout]}`
    : `Let ${named(first.text)} follow the layout around it`
  return draft.outcome(label, args.topics)
}

/** Draws the topics of a map closer together or further apart; 1 is the plain spacing. */
export function setSpacing(records: Records, args: { map: MapId; spacing: number }, making: Making): Outcome {
  const draft = new Draft(records, making)
  draft.update('map', args.map, { spacing: args.spacing })
  return draft.outcome('Change the spacing')
}

/** Gives a topic's text a width in px; null lets it follow its words. */
export function setWidth(records: Records, args: { topics: TopicId[]; width: number | null }, making: Making): Outcome {
  const draft = new Draft(records, making)
  for (const topic of args.topics) draft.update('topic', topic, { width: args.width })
  return draft.outcome(`Change the width of ${named(records.need('topic', args.topics[0] ?? null).text)}`, args.topics)
}
