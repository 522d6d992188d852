import { badgeName } from '../badges/badges'
import { refuse } from '../changes/problem'
import type { TopicId } from '../records/ids'
import type { Records } from '../records/records'
import type { Badge } from '../records/topic'
import { Draft, type Making, named, type Outcome } from './command'

const MOST = 20

/** Puts a badge on topics, behind those that they have; those that have it already are left alone. */
export function addBadge(
  records: Records,
  args: { topics: readonly TopicId[]; badge: Badge },
  making: Making,
): Outcome {
  const draft = new Draft(records, making)
  for (const id of args.topics) {
    const { badges } = records.get('topic', id) ?? refuse('gone', 'This topic is gone.')
    if (badges.includes(args.badge)) continue
    if (badges.length >= MOST) refuse('invalid', `A topic carries at most ${MOST} badges.`)
    draft.update('topic', id, { badges: [...badges, args.badge] })
  }
  return draft.outcome(`Put the badge ${badgeName(args.badge)} on`, [...args.topics])
}

/** Puts another badge in the place of one, or, with null, takes it off. */
export function changeBadge(
  records: Records,
  args: { topic: TopicId; index: number; badge: Badge | null },
  making: Making,
): Outcome {
  const draft = new Draft(records, making)
  const topic = records.get('topic', args.topic) ?? refuse('gone', 'This topic is gone.')
  const known = topic.badges[args.index] ?? refuse('gone', 'This badge is gone.')
  const badges = topic.badges.flatMap((badge, i) => (i !== args.index ? badge : (args.badge ?? [])))
  draft.update('topic', topic.id, { badges: [...new Set(badges)] })
  const label = args.badge ? `Change a badge of ${named(topic.text)}` : `Take the badge ${badgeName(known)} off`
  return draft.outcome(label, [topic.id])
}

/** Moves a badge to another place among those of its topic. */
export function moveBadge(
  records: Records,
  args: { topic: TopicId; from: number; to: number },
  making: Making,
): Outcome {
  const draft = new Draft(records, making)
  const topic = records.get('topic', args.topic) ?? refuse('gone', 'This topic is gone.')
  const badges = [...topic.badges]
  const [moved] = badges.splice(args.from, 1)
  badges.splice(args.to, 0, moved ?? refuse('gone', 'This badge is gone.'))
  draft.update('topic', topic.id, { badges })
  return draft.outcome(`Move a badge of ${named(topic.text)}`, [topic.id])
}
