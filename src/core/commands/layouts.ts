import type { MapId, TopicId } from '../records/ids'
import type { LayoutKind } from '../records/layout'
import { hangs } from '../records/place'
import type { TopicRecord } from '../records/topic'
import { command, type NewChange, named } from './command'
import { evenSidesOf, sharesOut } from './sides'

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

/** Gives a side to those children of a topic that have none. */
function shareOut(change: NewChange, parent: TopicRecord): void {
  const children = change.records.children(parent.id)
  evenSidesOf(change.records, children).forEach((side, i) => {
    const { id, place } = children[i]!
    if (hangs(place) && place.side === null) change.update('topic', id, { place: { ...place, side } })
  })
}

/**
 * Sets a whole map in another way. Branches with a layout of their own keep it. Refused where the map is gone.
 * O(first-level branches and what they show).
 */
export const setMapLayout = command((change, args: { map: MapId; layout: LayoutKind }) => {
  change.update('map', args.map, { layout: args.layout })
  const root = change.records.root(args.map)
  if (root && sharesOut(args.layout)) shareOut(change, root)
  return { label: `Set the map ${LAYOUT_NAMES[args.layout]}`, select: root ? [root.id] : [] }
})

/**
 * Gives branches a layout of their own; null lets them follow what is around them. Refused where one is gone.
 * O(children and what they show).
 */
export const setBranchLayout = command((change, args: { topics: readonly TopicId[]; layout: LayoutKind | null }) => {
  const topics = args.topics.map((id) => change.topic(id))
  for (const topic of topics) {
    change.update('topic', topic.id, { layout: args.layout })
    if (args.layout && sharesOut(args.layout)) shareOut(change, topic)
  }
  const first = named(topics[0]?.text ?? '')
  const label = args.layout ? `Set ${first} ${LAYOUT_NAMES[args.layout]}` : `Let ${first} follow the layout around it`
  return { label, select: [...args.topics] }
})

/** Draws the topics of a map closer together or further apart; 1 is the plain spacing. Refused where the map is gone. */
export const setSpacing = command((change, args: { map: MapId; spacing: number }) => {
  change.update('map', args.map, { spacing: args.spacing })
  return { label: 'Change the spacing', select: [] }
})

/** Gives a topic's text a width in px; null lets it follow its words. Refused where a topic is gone. */
export const setWidth = command((change, args: { topics: readonly TopicId[]; width: number | null }) => {
  for (const topic of args.topics) change.update('topic', topic, { width: args.width })
  return { label: `Change the width of ${named(change.topic(args.topics[0] ?? null).text)}`, select: [...args.topics] }
})
