import { refuse } from '../changes/problem'
import { isAsking } from '../gathering/asked'
import { SearchId, type TopicId } from '../records/ids'
import type { SearchAsked } from '../records/search'
import { command, type NewChange, named } from './command'

/** Keeps a search under a name. Refused without a name, and where it asks for nothing. */
export const keepSearch = command((change, args: { name: string; asked: SearchAsked }) => {
  const name = args.name.trim()
  const search = { id: change.newId(SearchId), name, asked: askedFor(args.asked), trashed: false }
  if (name === '') refuse('invalid', 'A search that is kept needs a name.')
  change.create('search', search)
  return { label: `Keep the search ${named(name)}`, select: [] }
})

/** Gives a kept search another name, or has it ask for something else. Refused where it is gone, without a name, and where it asks for nothing. */
export const changeSearch = command((change, args: { search: SearchId; name: string; asked: SearchAsked }) => {
  const search = searchOf(change, args.search)
  const name = args.name.trim()
  if (name === '') refuse('invalid', 'A search that is kept needs a name.')
  change.update('search', search.id, { name, asked: askedFor(args.asked) })
  return { label: `Change the search ${named(search.name)}`, select: [] }
})

/** Keeps a search no longer; lists that were gathered with it stay. Refused where it is gone. */
export const removeSearch = command((change, args: { search: SearchId }) => {
  const search = searchOf(change, args.search)
  change.update('search', search.id, { trashed: true })
  return { label: `Remove the search ${named(search.name)}`, select: [] }
})

/**
 * Has a topic show below it what a search finds anywhere in the collection; null lets it show its own topics alone. Refused where the
 * topic is gone, and for a search that asks for nothing.
 */
export const gatherList = command((change, args: { topic: TopicId; asked: SearchAsked | null }) => {
  const topic = change.topic(args.topic)
  change.update('topic', topic.id, { gathers: args.asked && askedFor(args.asked) })
  return {
    label: `${args.asked ? 'Gather a list below' : 'Gather no list below'} ${named(topic.text)}`,
    select: [topic.id],
  }
})

function askedFor(asked: SearchAsked): SearchAsked {
  if (!isAsking(asked)) refuse('invalid', 'Say what is to be found: words, a tag, a map, a task, a date or a person.')
  return { ...asked, words: asked.words.trim() }
}

function searchOf({ records }: NewChange, id: SearchId) {
  const search = records.get('search', id)
  return !search || search.trashed ? refuse('gone', 'This search is gone.') : search
}
