import { refuse } from '../changes/problem'
import { TopicId } from '../records/ids'
import { isRoot, parentOf, sideOf } from '../records/place'
import { MAX_TOPIC_TEXT } from '../records/text'
import { blankTopic } from './blank-topic'
import { command, named } from './command'
import { hang, placesFor } from './hang'
import { joinNotes } from './join-notes'
import { moveBelongings } from './move-belongings'
import { headsOnly } from './move-topics'
import { showsSides } from './sides'
import { trashBranches } from './trash-branches'

/**
 * Makes a topic the heading of its siblings: those on its side of the parent hang below it from now on. Refused where
 * it is gone, hangs on nothing, or stands alone. O(siblings).
 */
export const promoteToHeading = command((change, args: { topic: TopicId }) => {
  const { records } = change
  const topic = change.topic(args.topic)
  const parent = parentOf(topic) ?? refuse('root', 'This topic hangs on nothing, so it has no siblings.')
  const onSides = showsSides(records, change.topic(parent))
  const siblings = records
    .children(parent)
    .filter((sibling) => sibling.id !== topic.id && (!onSides || sideOf(sibling) === sideOf(topic)))
  if (siblings.length === 0) refuse('invalid', 'This topic has no siblings beside it.')
  hang(change, siblings, { parent: topic, after: 'last' })
  return { label: `Make ${named(topic.text)} the heading of its siblings`, select: [topic.id] }
})

/**
 * The reverse: what hangs below a topic comes to stand behind it, beside it. Refused where it is gone, hangs on
 * nothing, or has nothing below it. O(children).
 */
export const demoteHeading = command((change, args: { topic: TopicId }) => {
  const topic = change.topic(args.topic)
  const parent = parentOf(topic) ?? refuse('root', 'Nothing can stand beside this topic.')
  const children = change.records.children(topic.id)
  if (children.length === 0) refuse('invalid', 'There is nothing below this topic.')
  hang(change, children, { parent: change.topic(parent), after: topic.id, side: sideOf(topic) })
  return { label: `Put what is below ${named(topic.text)} beside it`, select: [topic.id] }
})

/**
 * Joins topics into the first of them: texts line by line, notes one after the other, files, links and what hangs
 * below united; links among them go into the trash, and so do the others. Refused for less than two, for roots and
 * doorways among the others, and where the texts are too long together. O(what hangs on the topics, with their
 * links).
 */
export const joinTopics = command((change, args: { topics: readonly TopicId[] }) => {
  const { records } = change
  const [first, ...others] = headsOnly(records, args.topics)
  if (!first || others.length === 0) refuse('invalid', 'Select two topics or more to join them.')
  if (others.some(isRoot)) refuse('root', 'The root of a map cannot be joined into another topic.')
  if (others.some((topic) => topic.opensMap)) refuse('doorway', 'A doorway cannot be joined: bring its map back first.')
  const text = [first, ...others]
    .map((topic) => topic.text)
    .filter((line) => line.trim() !== '')
    .join('\n')
  if (text.length > MAX_TOPIC_TEXT) refuse('invalid', 'Their texts are too long to be one topic.')
  change.update('topic', first.id, { text })
  for (const other of others) {
    joinNotes(change, first, other)
    moveBelongings(change, other, first)
  }
  const children = others.flatMap((topic) => records.children(topic.id))
  if (children.length > 0) hang(change, children, { parent: change.topic(first.id), after: 'last' })
  trashBranches(change, others)
  return { label: `Join ${others.length + 1} topics`, select: [first.id] }
})

/**
 * Makes a topic of each line of a text: the first line stays, the others follow it as siblings, or below a root.
 * Refused where the topic is gone or has one line only. O(lines and siblings).
 */
export const splitLines = command((change, args: { topic: TopicId }) => {
  const topic = change.topic(args.topic)
  const lines = topic.text
    .split('\n')
    .map((line) => line.trim())
    .filter((line) => line !== '')
  const [first = '', ...rest] = lines
  if (rest.length === 0) refuse('invalid', 'This topic has one line only.')
  change.update('topic', topic.id, { text: first })
  const parent = parentOf(topic)
  const spot = parent
    ? { parent: change.topic(parent), after: topic.id, side: sideOf(topic) }
    : { parent: topic, after: 'last' as const }
  const places = placesFor(
    change.records,
    spot,
    rest.map(() => 1),
  )
  const made = rest.map((line, i) => change.create('topic', blankTopic(change.newId(TopicId), places[i]!, line)).id)
  return { label: `Split ${named(first)} into ${lines.length} topics`, select: [topic.id, ...made] }
})
