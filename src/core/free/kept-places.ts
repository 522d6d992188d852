import { type Change, type Edit, joinEdits, revertEdits } from '../changes/edit'
import { prepareChange } from '../changes/prepare'
import type { LayoutContext, MapLayout } from '../layout/boxes'
import { layoutMap } from '../layout/map-layout'
import { arranged, hangs, isPlacedByHand, isRoot, type Point, parentOf, pointOf } from '../records/place'
import type { Records } from '../records/records'
import type { TopicRecord } from '../records/topic'
import { isFree } from '../tree/free'
import { branch } from '../tree/walk'
import { Spots } from './spots'

/** What a change does to free regions, seen while it is carried out. */
interface Asked {
  /** Topics that the layout would place, and that are free. */
  wanting: Map<string, TopicRecord>
  /** Topics with places of their own below each branch that was hung elsewhere. */
  carried: Map<string, TopicRecord[]>
  /** Those of them that are free where they come. */
  stillFree: Set<string>
}

/**
 * A change together with the places of what it brings into a free map or branch: there nothing is left to the layout. What stood
 * stays where it was; what was arranged again keeps what the layout made of it; what is new, or comes from elsewhere, stands behind
 * the sibling before it, or else beside its parent, at the nearest point that is clear of all that stands. What hangs on a branch
 * that moves comes along, and falls into order where it is free no longer. Two layouts of each such map where there is anything to
 * place; else O(what the change touches and what is below it).
 */
export function withKeptPlaces(records: Records, change: Change, context: LayoutContext): Change {
  if (change.undoes !== null || !change.edits.some((edit) => concernsFree(records, edit))) return change
  const prepared = prepareChange(records, change.edits, false)
  if (!prepared.ok) return change
  const asked = askedBy(records, prepared.edits)
  const maps = new Set([...asked.wanting.values(), ...headsOf(records, asked)].map(({ place }) => place.map))
  const layouts = () => new Map([...maps].map((map) => [map, layoutMap(records, map, context)]))
  const after = layouts()
  revertEdits(records, prepared.edits)
  if (maps.size === 0) return change
  const edits = placesOf(records, asked, prepared.edits, layouts(), after)
  return edits.length === 0 ? change : { ...change, edits: joinEdits([...change.edits, ...edits]) }
}

/** Whether an edit can leave a topic of a free region without a place: it is new, comes back, moves, is unfolded, or begins the region. */
const canAsk = ({ kind, before, after }: Edit): boolean =>
  kind === 'topic' &&
  (before === null || 'place' in after || after.trashed === false || after.folded === false || after.free === true)

/** Whether an edit can ask for a place, and touches a free region, or brings one along. Looks at little where it does not. */
function concernsFree(records: Records, edit: Edit): boolean {
  if (edit.kind !== 'topic' || !canAsk(edit)) return false
  const known = records.get('topic', edit.id)
  const place = edit.after.place ?? known?.place
  if (edit.after.free || !place) return edit.after.free === true
  const parent = records.get('topic', parentOf({ place }))
  if (parent?.free || (parent && isFree(records, parent)) || records.root(place.map)?.free) return true
  if (!known) return false
  if (isFree(records, known)) return true
  for (const below of branch(records, known)) if (below.free) return true
  return false
}

/** The topics of a branch that are free, the head among them where it is. Linear. */
function freeIn(records: Records, head: TopicRecord): TopicRecord[] {
  const free = new Set<string>()
  const found: TopicRecord[] = []
  for (const topic of branch(records, head)) {
    const parent = topic === head ? null : records.get('topic', parentOf(topic))
    if (!(parent ? parent.free || free.has(parent.id) : isFree(records, head))) continue
    free.add(topic.id)
    found.push(topic)
  }
  return found
}

function askedBy(records: Records, edits: readonly Edit[]): Asked {
  const asked: Asked = { wanting: new Map(), carried: new Map(), stillFree: new Set() }
  const created = new Set(edits.flatMap(({ id, before }) => (before === null ? [id] : [])))
  const moved = new Set(edits.flatMap(({ kind, id, after }) => (kind === 'topic' && 'place' in after ? [id] : [])))
  for (const edit of edits) {
    const topic = edit.kind === 'topic' && canAsk(edit) ? records.get('topic', edit.id) : undefined
    if (!topic || topic.trashed) continue
    // What hangs on something new is looked at with that.
    if (edit.before === null && created.has(parentOf(topic) ?? '')) continue
    const heads = isRoot(topic) ? [topic, ...records.looseBranches(topic.place.map)] : [topic]
    for (const below of heads.flatMap((head) => freeIn(records, head)))
      if (below.place.kind === 'arranged') asked.wanting.set(below.id, below)
    if (!comesFromElsewhere(edit)) continue
    const along = [...branch(records, topic)].filter((below) => isPlacedByHand(below) && !moved.has(below.id))
    if (along.length > 0) asked.carried.set(topic.id, along)
    const still = new Set(freeIn(records, topic).map(({ id }) => id))
    for (const { id } of along) if (still.has(id)) asked.stillFree.add(id)
  }
  return asked
}

const headsOf = (records: Records, { carried }: Asked): TopicRecord[] =>
  [...carried.keys()].map((id) => records.need('topic', id))

/** Whether an edit hangs a topic that was there already on another one, or on none. */
const comesFromElsewhere = (edit: Edit): boolean =>
  edit.kind === 'topic' &&
  edit.before?.place !== undefined &&
  edit.after.place !== undefined &&
  parentOf({ place: edit.before.place }) !== parentOf({ place: edit.after.place })

/** The edits that place what is asked for; the records are as they were before the change. */
function placesOf(
  records: Records,
  { wanting, carried, stillFree }: Asked,
  edits: readonly Edit[],
  before: ReadonlyMap<string, MapLayout>,
  after: ReadonlyMap<string, MapLayout>,
): Edit[] {
  const rearranged = new Set(edits.flatMap((edit) => (isArrangedAgain(edit) ? [edit.id] : [])))
  const found: Edit[] = []
  const place = (topic: TopicRecord, to: TopicRecord['place']) =>
    found.push({ kind: 'topic', id: topic.id, before: { place: topic.place }, after: { place: to } })
  for (const [map, now] of after) {
    const spots = new Spots({ before: before.get(map)!, now, wanting, rearranged, carried })
    for (const topic of wanting.values()) {
      const at = topic.place.map === map ? spots.of(topic.id) : null
      if (at && hangs(topic.place)) place(topic, { ...topic.place, kind: 'by hand', ...at })
    }
    for (const [head, along] of carried) {
      const by = spots.moved(head)
      for (const topic of along) if (by && stillFree.has(topic.id)) place(topic, shifted(topic, by))
    }
  }
  for (const topic of [...carried.values()].flat()) {
    const known = records.get('topic', topic.id)
    if (known && isFree(records, known) && !stillFree.has(topic.id)) place(topic, arranged(topic.place))
  }
  return found
}

const isArrangedAgain = (edit: Edit): boolean =>
  edit.kind === 'topic' &&
  edit.before?.place?.kind === 'by hand' &&
  edit.after.place?.kind === 'arranged' &&
  !comesFromElsewhere(edit)

function shifted(topic: TopicRecord, by: Point): TopicRecord['place'] {
  const { place } = topic
  const { x, y } = pointOf(topic)!
  return { ...place, x: x + by.x, y: y + by.y } as TopicRecord['place']
}
