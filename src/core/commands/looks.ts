import { refuse } from '../changes/problem'
import { LEVELS } from '../look/styles'
import { WHOLE_LOOKS } from '../look/whole-looks'
import { type CollectionId, LookId, type MapId, type TopicId } from '../records/ids'
import {
  type Background,
  type Look,
  type LookField,
  type MapLook,
  PLAIN_MAP_LOOK,
  type WholeLook,
} from '../records/look'
import type { Records } from '../records/records'
import { Draft, type Making, named, type Outcome } from './command'

/** What gets a look: topics alone, topics with all below them, or a map or collection, as a whole or on one level. */
export type LookTarget =
  | { kind: 'topics' | 'branches'; topics: readonly TopicId[] }
  | { kind: 'map'; map: MapId; level: number | null }
  | { kind: 'collection'; collection: CollectionId; level: number | null }

/** A look with some values set and others taken back to what is inherited; null when nothing is left. */
function changed(look: Look | null, set: Look, clear: readonly LookField[]): Look | null {
  const next: Look = { ...look, ...set }
  for (const field of clear) delete next[field]
  return Object.keys(next).length > 0 ? next : null
}

function changedMapLook(look: MapLook | null, level: number | null, set: Look, clear: readonly LookField[]): MapLook {
  const whole = look ?? PLAIN_MAP_LOOK
  if (level === null) return { ...whole, every: changed(whole.every, set, clear) ?? {} }
  const levels = Array.from({ length: LEVELS }, (_, i) => whole.levels[i] ?? {})
  levels[level] = changed(levels[level] ?? null, set, clear) ?? {}
  return { ...whole, levels }
}

/** Sets values of a look and takes others back to what is inherited. */
export function changeLook(
  records: Records,
  args: { target: LookTarget; set: Look; clear: readonly LookField[] },
  making: Making,
): Outcome {
  const draft = new Draft(records, making)
  const { target, set, clear } = args
  if (target.kind === 'map') {
    const { look } = records.need('map', target.map)
    draft.update('map', target.map, { look: changedMapLook(look, target.level, set, clear) })
    return draft.outcome('Change the look of the map')
  }
  if (target.kind === 'collection') {
    const { look } = records.need('collection', target.collection)
    draft.update('collection', target.collection, { look: changedMapLook(look, target.level, set, clear) })
    return draft.outcome('Change the look of all maps')
  }
  for (const id of target.topics) {
    const topic = records.get('topic', id) ?? refuse('gone', 'This topic is gone.')
    draft.update(
      'topic',
      id,
      target.kind === 'topics'
        ? { look: changed(topic.look, set, clear) }
        : { branchLook: changed(topic.branchLook, set, clear) },
    )
  }
  return draft.outcome(`Change the look of ${nameOf(records, target.topics)}`, [...target.topics])
}

function nameOf(records: Records, topics: readonly TopicId[]): string {
  return topics.length === 1 ? named(records.need('topic', topics[0]!).text) : `${topics.length} topics`
}

type Wide = { map: MapId } | { collection: CollectionId }

function updateWide(draft: Draft, at: Wide, change: (look: MapLook | null) => MapLook | null): void {
  if ('map' in at) draft.update('map', at.map, { look: change(draft.records.need('map', at.map).look) })
  else {
    const { look } = draft.records.need('collection', at.collection)
    draft.update('collection', at.collection, { look: change(look) })
  }
}

/**
 * Dresses a map or a collection in a whole look. What was set for the map or collection itself gives way to it; what
 * branches and topics have of their own stays. Null follows the collection again.
 */
export function chooseWholeLook(
  records: Records,
  args: { at: Wide; whole: WholeLook | null },
  making: Making,
): Outcome {
  const draft = new Draft(records, making)
  updateWide(draft, args.at, () => (args.whole ? { ...PLAIN_MAP_LOOK, whole: args.whole } : null))
  const what = 'map' in args.at ? 'the map' : 'all maps'
  return draft.outcome(args.whole ? `Dress ${what} in ${WHOLE_LOOKS[args.whole].name}` : 'Follow the look of all maps')
}

/** Sets what lies behind a map, or behind all maps; null takes it back to what is inherited. */
export function setBackground(
  records: Records,
  args: { at: Wide; background: Background | null },
  making: Making,
): Outcome {
  const draft = new Draft(records, making)
  updateWide(draft, args.at, (look) => ({ ...(look ?? PLAIN_MAP_LOOK), background: args.background }))
  return draft.outcome('Change the background')
}

/** Gives topics the look that another one has of its own, for itself and for its branch. */
export function copyLook(records: Records, args: { from: TopicId; to: readonly TopicId[] }, making: Making): Outcome {
  const draft = new Draft(records, making)
  const { look, branchLook, text } = records.need('topic', args.from)
  for (const topic of args.to) draft.update('topic', topic, { look, branchLook })
  return draft.outcome(`Take the look of ${named(text)} to ${nameOf(records, args.to)}`, [...args.to])
}

/** Keeps a look under a name, for the whole collection. */
export function saveLook(records: Records, args: { name: string; look: Look }, making: Making): Outcome {
  const draft = new Draft(records, making)
  const name = args.name.trim()
  if (name === '') refuse('invalid', 'A look needs a name.')
  if (Object.keys(args.look).length === 0) refuse('invalid', 'There is nothing in this look to save.')
  const known = [...records.all('look')].find((look) => !look.trashed && look.name === name)
  if (known) draft.update('look', known.id, { look: args.look })
  else draft.create('look', { id: draft.newId(LookId), name, look: args.look, trashed: false })
  return draft.outcome(`Save the look ${named(name)}`)
}

export function removeLook(records: Records, args: { look: LookId }, making: Making): Outcome {
  const draft = new Draft(records, making)
  const look = records.get('look', args.look) ?? refuse('gone', 'This look is gone.')
  draft.update('look', look.id, { trashed: true })
  return draft.outcome(`Remove the look ${named(look.name)}`)
}
