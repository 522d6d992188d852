import { refuse } from '../changes/problem'
import type { Bend, CrosslinkRecord } from '../records/crosslink'
import type { CrosslinkId, TopicId } from '../records/ids'
import { type Point, parentOf } from '../records/place'
import { command, type NewChange, named } from './command'
import { addCrosslink, lead } from './crosslinks'
import { hang } from './hang'
import { moveTopics } from './move-topics'
import { detachTopics } from './places'

function linkHere({ records }: NewChange, id: CrosslinkId): CrosslinkRecord {
  const link = records.get('crosslink', id)
  return link && !link.trashed ? link : refuse('gone', 'This cross-link is gone.')
}

/** Gives a link another label, or says whether it leads both ways. Refused where it is gone. */
export const changeCrosslink = command(
  (change, args: { crosslink: CrosslinkId; label?: string; bothWays?: boolean }) => {
    const { label, bothWays } = args
    const link = linkHere(change, args.crosslink)
    change.update('crosslink', link.id, {
      ...(label === undefined ? {} : { label: label.trim() }),
      ...(bothWays === undefined ? {} : { bothWays }),
    })
    return { label: label === undefined ? 'Turn a cross-link' : 'Label a cross-link', select: [] }
  },
)

/** Bends a link's line towards a place, or, with null, lets it find its way by itself again. Refused where the link is gone. */
export const bendCrosslink = command((change, args: { crosslink: CrosslinkId; bend: Bend | null }) => {
  const link = linkHere(change, args.crosslink)
  change.update('crosslink', link.id, { bend: args.bend })
  return { label: args.bend ? 'Bend a cross-link' : 'Straighten a cross-link', select: [] }
})

/** Lets a link begin where it ended. Refused where it is gone, and where it leads to something else than a topic. */
export const turnCrosslink = command((change, args: { crosslink: CrosslinkId }) => {
  const link = linkHere(change, args.crosslink)
  if (link.to.kind !== 'topic') refuse('invalid', 'Only a link between two topics can be turned around.')
  lead(change, link, { from: link.to.id, to: { kind: 'topic', id: link.from } })
  // The line stays where it is.
  if (link.bend) change.update('crosslink', link.id, { bend: { along: 1 - link.bend.along, aside: -link.bend.aside } })
  return { label: 'Turn a cross-link around', select: [] }
})

/**
 * Makes a branch of a link: what it leads to hangs on the topic where it begins from now on, and the link goes into the trash.
 * Refused where it is gone or leads to no topic, and where that cannot hang there. Needs the records at both ends.
 */
export const branchOfCrosslink = command((change, args: { crosslink: CrosslinkId }) => {
  const link = linkHere(change, args.crosslink)
  if (link.to.kind !== 'topic') refuse('invalid', 'Only a link between two topics can become a branch.')
  const moved = change.topic(link.to.id)
  moveTopics.within(change, { topics: [moved.id], parent: link.from, after: 'last', side: null })
  change.update('crosslink', link.id, { trashed: true })
  return { label: `Hang ${named(moved.text)} where its link began`, select: [moved.id] }
})

/**
 * The reverse: a branch stands beside what it hung on, or alone at a point where that is a root, and a drawn link leads there from
 * what it hung on. Refused where it is gone or hangs on nothing.
 */
export const crosslinkOfBranch = command((change, args: { topic: TopicId; at: Point }) => {
  const topic = change.topic(args.topic)
  const parent = change.topic(parentOf(topic) ?? refuse('root', 'This topic hangs on nothing.'))
  const above = parentOf(parent)
  if (above) hang(change, [topic], { parent: change.topic(above), after: parent.id })
  else detachTopics.within(change, { topics: [{ topic: topic.id, at: args.at }] })
  addCrosslink.within(change, { from: parent.id, to: { kind: 'topic', id: topic.id }, drawn: 'line' })
  return { label: `Link ${named(topic.text)} instead of hanging it there`, select: [topic.id] }
})
