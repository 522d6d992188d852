import { refuse } from '../changes/problem'
import type { EnclosureLook } from '../records/enclosure'
import { EnclosureId, type TopicId } from '../records/ids'
import { isPlacedByHand, parentOf } from '../records/place'
import type { Records } from '../records/records'
import { command, named, namedAll } from './command'
import { headsOnly } from './move-topics'

/**
 * Draws a frame around branches: one, or several that hang on the same topic (what stands between them is inside
 * too), or several loose ones. Enclosures may stand inside one another, but not cross. Refused where nothing is left
 * to enclose, branches hang on different topics, or the frame would cross another. O(siblings, with the enclosures
 * around them).
 */
export const encloseTopics = command((change, args: { topics: readonly TopicId[]; title: string }) => {
  const { records } = change
  const heads = headsOnly(records, args.topics)
  const first = heads[0] ?? refuse('gone', 'There is nothing to enclose.')
  const parent = parentOf(first)
  if (heads.some((topic) => parentOf(topic) !== parent || topic.place.map !== first.place.map))
    refuse('invalid', 'An enclosure holds one branch, or several that hang on the same topic.')
  const enclosed = parent ? between(records, parent, heads) : heads.map(({ id }) => id)
  for (const id of enclosed)
    for (const other of records.enclosuresOf(id)) {
      const inside = other.topics.every((topic) => enclosed.includes(topic))
      const around = enclosed.every((topic) => spanOf(records, other.topics).includes(topic))
      if (!inside && !around) refuse('invalid', 'This enclosure would cross another one.')
    }
  change.create('enclosure', {
    id: change.newId(EnclosureId),
    topics: enclosed,
    title: args.title.trim(),
    note: '',
    tone: null,
    look: null,
    trashed: false,
  })
  return { label: `Enclose ${namedAll(heads, 'branches')}`, select: [...args.topics] }
})

/** The siblings from the first to the last of these; only these where all of them were placed by hand, as order is no place then. */
function between(records: Records, parent: TopicId, heads: readonly { id: TopicId }[]): TopicId[] {
  const siblings = records.children(parent).map(({ id }) => id)
  const isArranged = (id: TopicId) => !isPlacedByHand(records.need('topic', id))
  if (!heads.some(({ id }) => isArranged(id))) return heads.map(({ id }) => id)
  const places = heads.map(({ id }) => siblings.indexOf(id))
  return siblings.slice(Math.min(...places), Math.max(...places) + 1)
}

function spanOf(records: Records, topics: readonly TopicId[]): TopicId[] {
  const parentAt = (id: TopicId | undefined) => {
    const topic = records.get('topic', id ?? null)
    return topic ? parentOf(topic) : null
  }
  const parent = parentAt(topics[0])
  const here = topics.filter((topic) => parentAt(topic) === parent).map((id) => ({ id }))
  return parent ? between(records, parent, here) : [...topics]
}

/** Gives an enclosure another title, note, tone or look. Refused where it is gone. */
export const changeEnclosure = command(
  (
    change,
    args: { enclosure: EnclosureId; title: string; note: string; tone: number | null; look: EnclosureLook | null },
  ) => {
    const { note, tone, look } = args
    const title = args.title.trim()
    change.update('enclosure', args.enclosure, { title, note, tone, look })
    return { label: title === '' ? 'Change an enclosure' : `Change the enclosure ${named(title)}`, select: [] }
  },
)

/** Takes the frame away; what is inside stays. Refused where it is gone. */
export const removeEnclosure = command((change, args: { enclosure: EnclosureId }) => {
  change.update('enclosure', args.enclosure, { trashed: true })
  return { label: 'Remove an enclosure', select: [] }
})
