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
import { foldForIdentity } from '../text/folding'
import { command, type NewChange, named, namedAll } from './command'

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

/** Sets values of a look and takes others back to what is inherited. Refused where what gets it is gone. */
export const changeLook = command((change, args: { target: LookTarget; set: Look; clear: readonly LookField[] }) => {
  const { target, set, clear } = args
  if (target.kind === 'map') {
    const { look } = change.map(target.map)
    change.update('map', target.map, { look: changedMapLook(look, target.level, set, clear) })
    return { label: 'Change the look of the map', select: [] }
  }
  if (target.kind === 'collection') {
    const { look } = change.records.need('collection', target.collection)
    change.update('collection', target.collection, { look: changedMapLook(look, target.level, set, clear) })
    return { label: 'Change the look of all maps', select: [] }
  }
  const topics = target.topics.map((id) => change.topic(id))
  for (const { id, look, branchLook } of topics)
    change.update(
      'topic',
      id,
      target.kind === 'topics' ? { look: changed(look, set, clear) } : { branchLook: changed(branchLook, set, clear) },
    )
  return { label: `Change the look of ${namedAll(topics)}`, select: [...target.topics] }
})

type Wide = { map: MapId } | { collection: CollectionId }

function updateWide(change: NewChange, at: Wide, next: (look: MapLook | null) => MapLook | null): void {
  if ('map' in at) change.update('map', at.map, { look: next(change.map(at.map).look) })
  else {
    const { look } = change.records.need('collection', at.collection)
    change.update('collection', at.collection, { look: next(look) })
  }
}

/**
 * Dresses a map or a collection in a whole look. What was set for the map or collection itself gives way to it; what
 * branches and topics have of their own stays. Null follows the collection again. Refused where the map is gone.
 */
export const chooseWholeLook = command((change, args: { at: Wide; whole: WholeLook | null }) => {
  updateWide(change, args.at, () => (args.whole ? { ...PLAIN_MAP_LOOK, whole: args.whole } : null))
  const what = 'map' in args.at ? 'the map' : 'all maps'
  const label = args.whole ? `Dress ${what} in ${WHOLE_LOOKS[args.whole].name}` : 'Follow the look of all maps'
  return { label, select: [] }
})

/** Sets what lies behind a map, or behind all maps; null takes it back to what is inherited. Refused where the map is gone. */
export const setBackground = command((change, args: { at: Wide; background: Background | null }) => {
  updateWide(change, args.at, (look) => ({ ...(look ?? PLAIN_MAP_LOOK), background: args.background }))
  return { label: 'Change the background', select: [] }
})

/** Gives topics the look that another one has of its own, for itself and for its branch. Refused where one is gone. */
export const copyLook = command((change, args: { from: TopicId; to: readonly TopicId[] }) => {
  const { look, branchLook, text } = change.topic(args.from)
  const topics = args.to.map((id) => change.topic(id))
  for (const { id } of topics) change.update('topic', id, { look, branchLook })
  return { label: `Take the look of ${named(text)} to ${namedAll(topics)}`, select: [...args.to] }
})

/**
 * Keeps a look under a name, for the whole collection; one of the same name gives way. Refused without a name or
 * values. O(saved looks).
 */
export const saveLook = command((change, args: { name: string; look: Look }) => {
  const name = args.name.trim()
  if (name === '') refuse('invalid', 'A look needs a name.')
  if (Object.keys(args.look).length === 0) refuse('invalid', 'There is nothing in this look to save.')
  const known = [...change.records.all('look')].find(
    (look) => !look.trashed && foldForIdentity(look.name) === foldForIdentity(name),
  )
  if (known) change.update('look', known.id, { look: args.look })
  else change.create('look', { id: change.newId(LookId), name, look: args.look, trashed: false })
  return { label: `Save the look ${named(name)}`, select: [] }
})

/** Puts a saved look into the trash; topics that took it keep what they have. Refused where it is gone. */
export const removeLook = command((change, args: { look: LookId }) => {
  const look = change.records.get('look', args.look) ?? refuse('gone', 'This look is gone.')
  change.update('look', look.id, { trashed: true })
  return { label: `Remove the look ${named(look.name)}`, select: [] }
})
