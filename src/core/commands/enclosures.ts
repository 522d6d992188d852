import { refuse } from '../changes/problem'
import type { EnclosureLook } from '../records/enclosure'
import { EnclosureId, type TopicId } from '../records/ids'
import type { Records } from '../records/records'
import { Draft, type Making, named, type Outcome } from './command'
import { headsOnly } from './move-topics'

/**
 * Draws a frame around branches: one, or several that hang on the same topic (what stands between them is inside too),
 * or several loose ones. Enclosures may stand inside one another, but not cross.
 */
export function encloseTopics(records: Records, args: { topics: TopicId[]; title: string }, making: Making): Outcome {
  const draft = new Draft(records, making)
  const heads = headsOnly(records, args.topics)
  const [first] = heads
  if (!first) refuse('gone', 'There is nothing to enclose.')
  if (heads.some((topic) => topic.place.parent !== first.place.parent || topic.place.map !== first.place.map))
    refuse('invalid', 'An enclosure holds one branch, or several that hang on the same topic.')
  const enclosed = first.place.parent ? between(records, first.place.parent, heads) : heads.map(({ id }) => id)
  for (const id of enclosed)
    for (const other of records.enclosuresOf(id)) {
      const inside = other.topics.every((topic) => enclosed.includes(topic))
      const around = enclosed.every((topic) => spanOf(records, other.topics).includes(topic))
      if (!inside && !around) refuse('invalid', 'This enclosure would cross another one.')
    }
  const title = args.title.trim()
  draft.create('enclosure', {
    id: draft.newId(EnclosureId),
    topics: enclosed,
    title,
    note: '',
    tone: null,
    look: null,
    trashed: false,
  })
  return draft.outcome(`Enclose ${heads.length === 1 ? named(first.text) : `${heads.length} branches`}`, args.topics)
}

/** The siblings from the first to the last of these. */
function between(records: Records, parent: TopicId, heads: readonly { id: TopicId }[]): TopicId[] {
  const siblings = records.children(parent).map(({ id }) => id)
  const places = heads.map(({ id }) => siblings.indexOf(id))
  return siblings.slice(Math.min(...places), Math.max(...places) + 1)
}

function spanOf(records: Records, topics: readonly TopicId[]): TopicId[] {
  const parent = records.get('topic', topics[0] ?? null)?.place.parent
  const here = topics.filter((topic) => records.get('topic', topic)?.place.parent === parent).map((id) => ({ id }))
  return parent ? between(records, parent, here) : [...topics]
}

/** Gives an enclosure another title, note, tone or look. */
export function changeEnclosure(
  records: Records,
  args: { enclosure: EnclosureId; title: string; note: string; tone: number | null; look: EnclosureLook | null },
  making: Making,
): Outcome {
  const draft = new Draft(records, making)
  const enclosure = records.get('enclosure', args.enclosure) ?? refuse('gone', 'This enclosure is gone.')
  const { note, tone, look } = args
  draft.update('enclosure', enclosure.id, { title: args.title.trim(), note, tone, look })
  return draft.outcome(args.title.trim() === '' ? 'Change an enclosure' : `Change the enclosure ${named(args.title)}`)
}

export function removeEnclosure(records: Records, args: { enclosure: EnclosureId }, making: Making): Outcome {
  const draft = new Draft(records, making)
  draft.update('enclosure', args.enclosure, { trashed: true })
  return draft.outcome('Remove an enclosure')
}
