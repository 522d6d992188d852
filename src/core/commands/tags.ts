import { refuse } from '../changes/problem'
import { TagId, type TopicId } from '../records/ids'
import type { Records } from '../records/records'
import type { TagRecord } from '../records/tag'
import { MOST_TAGS } from '../records/topic'
import { foldForIdentity } from '../text/folding'
import { command, type NewChange, named } from './command'

/** The tag of this name, case aside; undefined where there is none. */
export const tagNamed = (records: Records, name: string): TagRecord | undefined =>
  [...records.all('tag')].find((tag) => !tag.trashed && foldForIdentity(tag.name) === foldForIdentity(name))

/**
 * Tags topics. A name that no tag has yet makes one. Refused without a name, where a topic is gone, or carries as
 * many tags as it can. O(tags of the collection, and topics).
 */
export const tagTopics = command((change, args: { topics: readonly TopicId[]; name: string }) => {
  const name = args.name.trim()
  if (name === '') refuse('invalid', 'A tag needs a name.')
  const tag =
    tagNamed(change.records, name) ??
    change.create('tag', { id: change.newId(TagId), name, tone: null, trashed: false })
  for (const id of args.topics) {
    const { tags } = change.topic(id)
    if (tags.includes(tag.id)) continue
    if (tags.length >= MOST_TAGS) refuse('invalid', `A topic carries at most ${MOST_TAGS} tags.`)
    change.update('topic', id, { tags: [...tags, tag.id] })
  }
  return { label: `Tag with ${named(name)}`, select: [...args.topics] }
})

/** Takes a tag off topics; those without it are left alone. Refused where the tag is gone. */
export const untagTopics = command((change, args: { topics: readonly TopicId[]; tag: TagId }) => {
  const { name } = change.records.get('tag', args.tag) ?? refuse('gone', 'This tag is gone.')
  for (const id of args.topics) {
    const topic = change.records.get('topic', id)
    if (topic?.tags.includes(args.tag))
      change.update('topic', id, { tags: topic.tags.filter((tag) => tag !== args.tag) })
  }
  return { label: `Take the tag ${named(name)} off`, select: [...args.topics] }
})

/**
 * Renames a tag or gives it a tone, wherever it stands. Refused where it is gone, and for a name that another one
 * has. O(tags of the collection).
 */
export const changeTag = command((change, args: { tag: TagId; name: string; tone: number | null }) => {
  const tag = change.records.get('tag', args.tag) ?? refuse('gone', 'This tag is gone.')
  const name = args.name.trim()
  if (name === '') refuse('invalid', 'A tag needs a name.')
  const other = tagNamed(change.records, name)
  if (other && other.id !== tag.id) refuse('exists', 'Another tag has this name.')
  change.update('tag', tag.id, { name, tone: args.tone })
  return { label: `Change the tag ${named(tag.name)}`, select: [] }
})

/**
 * Makes one tag of several: what carries any of them carries `into`, and the others are gone. Refused where one of them is gone, or
 * `into` is among the others. O(topics of the collection).
 */
export const mergeTags = command((change, args: { into: TagId; tags: readonly TagId[] }) => {
  const into = tagOf(change, args.into)
  if (args.tags.includes(into.id)) refuse('invalid', 'A tag cannot be merged into itself.')
  const others = args.tags.map((tag) => tagOf(change, tag))
  const gone = new Set<TagId>(args.tags)
  for (const topic of [...change.records.all('topic')]) {
    if (!topic.tags.some((tag) => gone.has(tag))) continue
    change.update('topic', topic.id, { tags: [...new Set(topic.tags.map((tag) => (gone.has(tag) ? into.id : tag)))] })
  }
  for (const { id } of others) change.update('tag', id, { trashed: true })
  return {
    label: `Merge ${others.map(({ name }) => named(name)).join(', ')} into ${named(into.name)}`.slice(0, 400),
    select: [],
  }
})

/** Takes a tag off everything that carries it, and puts it into the trash. Refused where it is gone. O(topics of the collection). */
export const removeTag = command((change, args: { tag: TagId }) => {
  const tag = tagOf(change, args.tag)
  const carrying = [...change.records.all('topic')].filter(({ tags }) => tags.includes(tag.id))
  if (carrying.length > 0) untagTopics.within(change, { topics: carrying.map(({ id }) => id), tag: tag.id })
  change.update('tag', tag.id, { trashed: true })
  return { label: `Remove the tag ${named(tag.name)}`, select: [] }
})

function tagOf({ records }: NewChange, id: TagId): TagRecord {
  const tag = records.get('tag', id)
  return !tag || tag.trashed ? refuse('gone', 'This tag is gone.') : tag
}
