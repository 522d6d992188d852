import { refuse } from '../changes/problem'
import { type CrosslinkRecord, type Drawn, isSameEnd, type LinkEnd } from '../records/crosslink'
import { CrosslinkId, type TopicId } from '../records/ids'
import type { Records } from '../records/records'
import { command, type NewChange, named } from './command'

/** A cross-link begins like this. */
export const PLAIN_CROSSLINK = { label: '', bothWays: false, bend: null, trashed: false } as const

/**
 * Links a topic to another topic, to an enclosure, a map or a note, anywhere in the collection. Refused where an end
 * is gone, both are the same, the enclosure holds nothing else, or the two are linked already. O(cross-links of the
 * topic).
 */
export const addCrosslink = command((change, args: { from: TopicId; to: LinkEnd; drawn: Drawn }) => {
  const { records } = change
  const { to, drawn } = args
  const from = change.topic(args.from, 'The topic where the link begins is gone.')
  if (leadsToItself(from.id, to)) refuse('invalid', 'A link leads from one topic to another.')
  if (to.kind === 'enclosure') checkEnclosure(records, from.id, to.id)
  if (records.crosslinksFrom(from.id).some((link) => isSameEnd(link.to, to)))
    refuse('exists', 'These two are linked already.')
  change.create('crosslink', {
    id: change.newId(CrosslinkId),
    from: from.id,
    to,
    drawn,
    ...PLAIN_CROSSLINK,
  })
  return { label: `Link ${named(from.text)}`, select: [from.id] }
})

/** Every two of so many topics are linked: some 190 links. */
const MOST_TIED = 20

/**
 * Ties topics to one another: every two of them that are not linked yet, in either direction, are linked quietly. Refused for
 * less than two or more than `MOST_TIED` topics, where one is gone, and where all are linked already. O(topics squared).
 */
export const tieTopics = command((change, args: { topics: readonly TopicId[] }) => {
  const topics = [...new Set(args.topics)].map((id) => change.topic(id))
  if (topics.length < 2) refuse('invalid', 'Select two topics or more to tie them to one another.')
  if (topics.length > MOST_TIED) refuse('invalid', `At most ${MOST_TIED} topics are tied to one another at a time.`)
  let made = 0
  topics.forEach((from, i) => {
    for (const other of topics.slice(i + 1)) {
      if (areLinked(change.records, from.id, other.id)) continue
      addCrosslink.within(change, { from: from.id, to: { kind: 'topic', id: other.id }, drawn: 'quiet' })
      made++
    }
  })
  if (made === 0) refuse('exists', 'These topics are tied to one another already.')
  return { label: `Tie ${topics.length} topics to one another`, select: topics.map(({ id }) => id) }
})

const areLinked = (records: Records, a: TopicId, b: TopicId): boolean =>
  [a, b].some((from, i) =>
    records.crosslinksFrom(from).some(({ to }) => isSameEnd(to, { kind: 'topic', id: i === 0 ? b : a })),
  )

const leadsToItself = (from: TopicId, to: LinkEnd): boolean => to.kind === 'topic' && to.id === from

function checkEnclosure(records: Records, from: TopicId, id: string): void {
  const enclosure = records.get('enclosure', id)
  if (!enclosure || enclosure.trashed) refuse('gone', 'This enclosure is gone.')
  if (!enclosure.topics.some((topic) => topic !== from && records.get('topic', topic)?.trashed === false))
    refuse('invalid', 'A topic cannot be linked with the enclosure around nothing but itself.')
}

/**
 * Gives a link other ends. One that would lead from a topic to itself, or say what another link says already, goes into
 * the trash instead.
 */
export function lead(change: NewChange, link: CrosslinkRecord, ends: { from?: TopicId; to?: LinkEnd }): void {
  const { from, to } = { ...link, ...ends }
  const said = change.records.crosslinksFrom(from).some((other) => other.id !== link.id && isSameEnd(other.to, to))
  if (leadsToItself(from, to) || said) change.update('crosslink', link.id, { trashed: true })
  else change.update('crosslink', link.id, { from, to })
}

/**
 * Draws cross-links as lines, as quiet signs, or only while an end is selected; those that are drawn so already stay. Refused
 * where one is gone.
 */
export const drawCrosslinks = command((change, args: { crosslinks: readonly CrosslinkId[]; drawn: Drawn }) => {
  for (const id of new Set(args.crosslinks)) change.update('crosslink', id, { drawn: args.drawn })
  const name = args.crosslinks.length === 1 ? 'a cross-link' : `${args.crosslinks.length} cross-links`
  return { label: args.drawn === 'line' ? `Draw ${name}` : `Make ${name} quiet`, select: [] }
})

/** Puts cross-links into the trash. Refused where one is gone. */
export const removeCrosslinks = command((change, args: { crosslinks: readonly CrosslinkId[] }) => {
  for (const id of new Set(args.crosslinks)) change.update('crosslink', id, { trashed: true })
  return {
    label: args.crosslinks.length === 1 ? 'Remove a cross-link' : `Remove ${args.crosslinks.length} cross-links`,
    select: [],
  }
})
