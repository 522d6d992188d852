import { refuse } from '../changes/problem'
import { EnclosureId, type TopicId } from '../records/ids'
import type { Side } from '../records/place'
import type { Records } from '../records/records'
import type { TopicRecord } from '../records/topic'
import { addTopic } from './add-topic'
import { command, type NewChange, named, namedAll } from './command'
import { hang, placesFor } from './hang'
import { joinNotes } from './join-notes'
import { createMap } from './maps'
import { moveBelongings } from './move-belongings'
import { rowsOf } from './sides'
import { trashBranches } from './trash-branches'

/** Makes a band of some items: a new topic with its title, below which they hang. Refused where one of them is gone. */
export const makeBand = command((change, args: { holder: TopicId; title: string; items: readonly TopicId[] }) => {
  const {
    select: [band],
  } = addTopic.within(change, { parent: args.holder, after: 'last', text: args.title })
  const items = args.items.map((id) => change.topic(id))
  if (items.length > 0) hang(change, items, { parent: change.topic(band!), after: 'last' })
  return { label: `Make the band ${named(args.title)}`, select: [band!] }
})

/**
 * Puts bands under one heading: a new band, in which they are. Refused where one of them is gone.
 */
export const putUnderHeading = command(
  (change, args: { holder: TopicId; title: string; bands: readonly TopicId[] }) => ({
    ...makeBand.within(change, { holder: args.holder, title: args.title, items: args.bands }),
    label: `Put ${namedAll(
      args.bands.map((id) => change.topic(id)),
      'bands',
    )} under ${named(args.title)}`,
  }),
)

/**
 * Joins a band into another: what is in it comes behind what is there, and so does what its title carried; the title goes into the
 * trash. Refused where one is gone, or one is inside the other.
 */
export const joinBands = command((change, args: { into: TopicId; from: TopicId }) => {
  const { records } = change
  const [into, from] = [change.topic(args.into), change.topic(args.from)]
  if (into.id === from.id) refuse('invalid', 'A band cannot be joined with itself.')
  if (from.opensMap) refuse('doorway', 'A doorway cannot be joined: bring its map back first.')
  hang(change, records.children(from.id), { parent: into, after: 'last' })
  joinNotes(change, into, from)
  moveBelongings(change, from, into)
  trashBranches(change, [change.topic(from.id)])
  return { label: `Join ${named(from.text)} into ${named(into.text)}`, select: [into.id] }
})

/** Hangs what was sorted on a topic, behind what is there. Refused where it is gone. O(topics, where they change maps). */
export const hangSorted = command((change, args: { topics: readonly TopicId[]; parent: TopicId }) => {
  const topics = args.topics.map((id) => change.topic(id))
  const parent = change.topic(args.parent)
  if (topics.length === 0) refuse('invalid', 'There is nothing to place yet.')
  hang(change, topics, { parent, after: 'last' })
  return { label: `Place ${namedAll(topics)} below ${named(parent.text)}`, select: [...args.topics] }
})

/**
 * Makes a map of what was sorted, which a new topic below `doorwayBelow` opens. Refused without a name, or where something is gone.
 * O(topics).
 */
export const mapOfSorted = command(
  (change, args: { topics: readonly TopicId[]; title: string; doorwayBelow: TopicId }) => {
    const topics = args.topics.map((id) => change.topic(id))
    if (topics.length === 0) refuse('invalid', 'There is nothing to make a map of yet.')
    if (args.title.trim() === '') refuse('invalid', 'A map needs a name.')
    const {
      select: [doorway],
    } = addTopic.within(change, { parent: args.doorwayBelow, after: 'last', text: args.title.trim() })
    const { map, root } = createMap(change, args.title, args.title.trim(), { homeDoorway: doorway! })
    change.update('topic', doorway!, { opensMap: map })
    hang(change, topics, { parent: root, after: 'last' })
    return { label: `Make the map ${named(args.title)}`, select: [doorway!] }
  },
)

/** Bands are inside one another no deeper than this where they become enclosures: a frame needs room. */
const MOST_LEVELS = 20

/**
 * Hangs what was sorted on a topic as enclosures: the items of each band in one row with a frame around them that has its title, a
 * frame within a frame for bands inside bands. A title that carries something of its own stays as the first topic inside; others go
 * into the trash. Items in no band stand behind. Refused where something is gone. O(topics).
 */
export const encloseSorted = command((change, args: { topics: readonly TopicId[]; parent: TopicId }) => {
  const parent = change.topic(args.parent)
  if (args.topics.length === 0) refuse('invalid', 'There is nothing to place yet.')
  const told: TopicId[] = []
  const frames: { title: string; topics: TopicId[] }[] = []
  const place = (topic: TopicRecord, side: Side | null, level: number): TopicId[] => {
    const { id } = topic
    const below = change.records.children(id)
    const isTitle = below.length > 0 && level <= MOST_LEVELS
    const isKept = !isTitle || carriesMore(change, topic)
    if (isKept) hang(change, [topic], { parent, after: 'last', side })
    if (!isTitle) return [id]
    const inside = [...(isKept ? [id] : []), ...below.flatMap((child) => place(child, side, level + 1))]
    if (!isKept) trashBranches(change, [change.topic(id)])
    frames.push({ title: topic.text, topics: inside })
    return inside
  }
  for (const id of args.topics) {
    const topic = change.topic(id)
    // What is in one frame stands on one side of its parent.
    const [at] = placesFor(change.records, { parent, after: 'last' }, [rowsOf(change.records, topic)])
    told.push(...place(topic, at!.side, 0))
  }
  for (const { title, topics } of frames)
    change.create('enclosure', {
      id: change.newId(EnclosureId),
      topics,
      title,
      note: '',
      tone: null,
      look: null,
      trashed: false,
    })
  return {
    label: `Place ${namedAll(
      frames.map(({ title }) => ({ text: title })),
      'enclosures',
    )} below ${named(parent.text)}`,
    select: told,
  }
})

/** Whether a topic carries more than its text: then it is not merely the title of what hangs on it. */
function carriesMore({ records }: NewChange, topic: TopicRecord): boolean {
  const { id, note, opensMap, picture, dates, task } = topic
  return Boolean(note || opensMap || picture || dates || task) || hasLinks(records, id)
}

const hasLinks = (records: Records, id: string): boolean =>
  records.attachments(id).length > 0 ||
  records.weblinks(id).length > 0 ||
  records.crosslinksFrom(id).length > 0 ||
  records.crosslinksTo('topic', id).length > 0
