import { refuse } from '../changes/problem'
import { type Source, sourceOf } from '../network/sources'
import { between } from '../tree/rank'
import { command, type NewChange, named } from './command'

/** Marks files and web links as read, or as still to be read. Those that are so already stay as they are. */
export const markRead = command((change, args: { sources: readonly Source[]; read: boolean }) => {
  const told = args.sources.map((source) => foundSource(change, source))
  for (const { kind, id } of told) change.update(kind, id, { read: args.read })
  const what = told.length === 1 ? named(told[0]!.name) : `${told.length} sources`
  return { label: args.read ? `Mark ${what} as read` : `Mark ${what} as still to be read`, select: [] }
})

/** Moves a file or web link to another place among those of its kind on its topic, counted from 0. Refused where it is gone. */
export const moveSource = command((change, args: { source: Source; to: number }) => {
  const { kind, id, topic, name } = foundSource(change, args.source)
  const all = kind === 'attachment' ? change.records.attachments(topic) : change.records.weblinks(topic)
  const others = all.filter((other) => other.id !== id)
  const at = Math.max(0, Math.min(args.to, others.length))
  change.update(kind, id, { rank: between(others[at - 1]?.rank, others[at]?.rank) })
  return { label: `Move ${named(name)}`, select: [topic] }
})

/** A source that a command is about. Refused where it is gone. */
export const foundSource = ({ records }: NewChange, source: Source) =>
  sourceOf(records, source) ??
  refuse('gone', source.kind === 'weblink' ? 'This web link is gone.' : 'This file is gone.')
