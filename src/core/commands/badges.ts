import { badgeName } from '../badges/badges'
import { refuse } from '../changes/problem'
import type { TopicId } from '../records/ids'
import { type Badge, MOST_BADGES } from '../records/topic'
import { command, named } from './command'

/**
 * Puts a badge on topics, behind those that they have; those that have it already are left alone.
 * Refused where a topic is gone or carries as many as it can.
 */
export const addBadge = command((change, args: { topics: readonly TopicId[]; badge: Badge }) => {
  for (const id of args.topics) {
    const { badges } = change.topic(id)
    if (badges.includes(args.badge)) continue
    if (badges.length >= MOST_BADGES) refuse('invalid', `A topic carries at most ${MOST_BADGES} badges.`)
    change.update('topic', id, { badges: [...badges, args.badge] })
  }
  return { label: `Put the badge ${badgeName(args.badge)} on`, select: [...args.topics] }
})

/** Puts another badge in the place of one, or, with null, takes it off. Refused where topic or badge is gone. */
export const changeBadge = command((change, args: { topic: TopicId; index: number; badge: Badge | null }) => {
  const topic = change.topic(args.topic)
  const known = topic.badges[args.index] ?? refuse('gone', 'This badge is gone.')
  const badges = topic.badges.flatMap((badge, i) => (i !== args.index ? badge : (args.badge ?? [])))
  change.update('topic', topic.id, { badges: [...new Set(badges)] })
  const label = args.badge ? `Change a badge of ${named(topic.text)}` : `Take the badge ${badgeName(known)} off`
  return { label, select: [topic.id] }
})

/** Moves a badge to another place among those of its topic. Refused where topic or badge is gone. */
export const moveBadge = command((change, args: { topic: TopicId; from: number; to: number }) => {
  const topic = change.topic(args.topic)
  const badges = [...topic.badges]
  const [moved] = badges.splice(args.from, 1)
  badges.splice(args.to, 0, moved ?? refuse('gone', 'This badge is gone.'))
  change.update('topic', topic.id, { badges })
  return { label: `Move a badge of ${named(topic.text)}`, select: [topic.id] }
})
