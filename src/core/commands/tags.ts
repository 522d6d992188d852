import { refuse } from '../changes/problem'
import { TagId, type TopicId } from '../records/ids'
import type { Records } from '../records/records'
import type { TagRecord } from '../records/tag'
import { Draft, type Making, named, type Outcome } from './command'

const plain = (name: string) => name.trim().normalize('NFC').toLowerCase()

/** The tag of this name, case aside; undefined where there is none. */
export const tagNamed = (records: Records, name: string): TagRecord | undefined =>
  [...records.all('tag')].find((tag) => !tag.trashed && plain(tag.name) === plain(name))

/** Tags topics. A name that no tag has yet makes one. */
export function tagTopics(
  records: Records,
  args: { topics: readonly TopicId[]; name: string },
  making: Making,
): Outcome {
  const draft = new Draft(records, making)
  const name = args.name.trim()
  if (name === '') refuse('invalid', 'A tag needs a name.')
  const tag =
    tagNamed(records, name) ?? draft.create('tag', { id: draft.newId(TagId), name, tone: null, trashed: false })
  for (const id of args.topics) {
    const { tags } = records.get('topic', id) ?? refuse('gone', 'This topic is gone.')
    if (!tags.includes(tag.id)) draft.update('topic', id, { tags: [...tags, tag.id] })
  }
  return draft.outcome(`Tag with ${named(name)}`, [...args.topics])
}

export function untagTopics(
  records: Records,
  args: { topics: readonly TopicId[]; tag: TagId },
  making: Making,
): Outcome {
  const draft = new Draft(records, making)
  for (const id of args.topics) {
    const topic = records.get('topic', id)
    if (topic?.tags.includes(args.tag))
      draft.update('topic', id, { tags: topic.tags.filter((tag) => tag !== args.tag) })
  }
  return draft.outcome(`Take the tag ${named(records.need('tag', args.tag).name)} off`, [...args.topics])
}

/** Renames a tag or gives it a tone, wherever it stands. */
export function changeTag(
  records: Records,
  args: { tag: TagId; name: string; tone: number | null },
  making: Making,
): Outcome {
  const draft = new Draft(records, making)
  const tag = records.get('tag', args.tag) ?? refuse('gone', 'This tag is gone.')
  const name = args.name.trim()
  if (name === '') refuse('invalid', 'A tag needs a name.')
  const other = tagNamed(records, name)
  if (other && other.id !== tag.id) refuse('exists', 'Another tag has this name.')
  draft.update('tag', tag.id, { name, tone: args.tone })
  return draft.outcome(`Change the tag ${named(tag.name)}`)
}
