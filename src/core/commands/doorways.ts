import { refuse } from '../changes/problem'
import type { MapId, TopicId } from '../records/ids'
import { command, type NewChange, named } from './command'
import { copyBranches } from './copy-branches'
import { mapsAbove, nextHomeDoorway } from './home-doorways'
import { createMap } from './maps'
import { evenSidesOf, layoutBelow } from './sides'

/**
 * Makes a topic a doorway to a map that is there; the first one to it becomes its home doorway, where that closes no loop. Refused
 * where the topic opens a map already, or would open its own, and where something is gone.
 */
export const makeDoorway = command((change, args: { topic: TopicId; map: MapId }) => {
  const [topic, map] = [change.topic(args.topic), change.map(args.map)]
  if (topic.opensMap) refuse('doorway', 'This topic opens a map already.')
  if (map.id === topic.place.map) refuse('loop', 'A topic cannot open the map on which it stands.')
  if (map.trashed) refuse('gone', 'This map lies in the trash.')
  change.update('topic', topic.id, { opensMap: map.id })
  if (map.homeDoorway === null && change.records.collection()?.homeMap !== map.id)
    change.update('map', map.id, { homeDoorway: nextHomeDoorway(change.records, map.id, new Set()) })
  return { label: `Let ${named(topic.text)} open ${named(map.title)}`, select: [topic.id] }
})

/** Lets a topic open no map any more; the map stays, and is reached through another doorway or by itself. Refused where it opens none. */
export const closeDoorway = command((change, args: { topic: TopicId }) => {
  const topic = change.topic(args.topic)
  const map = topic.opensMap ?? refuse('doorway', 'This topic opens no map.')
  change.update('topic', topic.id, { opensMap: null })
  if (change.records.get('map', map)?.homeDoorway === topic.id)
    change.update('map', map, { homeDoorway: nextHomeDoorway(change.records, map, new Set([topic.id])) })
  return { label: `Let ${named(topic.text)} open nothing`, select: [topic.id] }
})

/** Makes a doorway the one by which its map is reached. Refused where it opens none, or that would lead in a circle. */
export const chooseHomeDoorway = command((change, args: { topic: TopicId }) => {
  const { records } = change
  const topic = change.topic(args.topic)
  const map = change.map(topic.opensMap ?? refuse('doorway', 'This topic opens no map.'))
  const { map: here } = topic.place
  if (here === map.id || mapsAbove(records, here).includes(map.id))
    refuse('loop', `This map is reached through ${named(map.title)} itself, so the way there cannot lead through it.`)
  change.update('map', map.id, { homeDoorway: topic.id })
  return { label: `Make ${named(topic.text)} the way to ${named(map.title)}`, select: [topic.id] }
})

/**
 * Makes a child map of a topic, which becomes its doorway, without taking anything off the map: with copies of what hangs on the
 * topic, or empty. Refused as splitting off is. O(topics of the branch, where they are copied).
 */
export const makeChildMap = command((change, args: { topic: TopicId; with: 'copies' | 'nothing' }) => {
  const { records } = change
  const topic = change.topic(args.topic)
  if (topic.opensMap) refuse('doorway', 'This topic opens a map already.')
  const children = records.children(topic.id)
  if (args.with === 'copies' && children.length === 0) refuse('invalid', 'There is nothing below this topic to copy.')
  const own = change.map(topic.place.map)
  const { map, root } = createMap(change, topic.text || 'Untitled', topic.text, {
    homeDoorway: topic.id,
    layout: layoutBelow(records, topic),
    spacing: own.spacing,
    look: own.look,
  })
  if (args.with === 'copies') copyChildren(change, children, root.id, map)
  change.update('topic', topic.id, { opensMap: map })
  return { label: `Make a child map of ${named(topic.text)}`, select: [topic.id] }
})

function copyChildren(change: NewChange, children: readonly { id: TopicId }[], parent: TopicId, map: MapId): void {
  const heads = children.map(({ id }) => change.topic(id))
  const sides = evenSidesOf(change.records, heads)
  copyBranches(
    change,
    heads.flatMap((head, i) =>
      'rank' in head.place
        ? [{ head, place: { kind: 'arranged' as const, map, parent, rank: head.place.rank, side: sides[i]! } }]
        : [],
    ),
  )
}
