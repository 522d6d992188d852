import { v7 as uuid } from 'uuid'
import { prepareChange } from '../../core/changes/prepare'
import { Refusal } from '../../core/changes/problem'
import { encloseSorted } from '../../core/commands/bands'
import type { Outcome } from '../../core/commands/command'
import { hangItems } from '../../core/commands/hang-items'
import { makeMap } from '../../core/commands/maps'
import { outlineOf } from '../../core/formats/outline-of'
import type { CollectionRecord } from '../../core/records/collection'
import type { MapId, TopicId } from '../../core/records/ids'
import { Records } from '../../core/records/records'

/** Ids of records that are only looked at. */
const ids = { newId: () => uuid() }

/** What bands would be below a topic, as a map of its own: as branches, or in frames. Null where there is nothing to see. */
export function previewSorted(
  records: Records,
  collection: CollectionRecord,
  bands: readonly TopicId[],
  areFramed: boolean,
): { records: Records; map: MapId } | null {
  if (bands.length === 0) return null
  const made = new Records()
  made.put('collection', { ...collection, homeMap: null })
  const run = ({ change, select }: Outcome): readonly TopicId[] => {
    prepareChange(made, change.edits, false)
    return select
  }
  try {
    const root = run(makeMap(made, { collection: collection.id, title: ' ' }, ids))[0]!
    const items = bands.map((band) => outlineOf(records, records.need('topic', band)))
    run(hangItems(made, { topic: root, items, act: 'Insert' }, ids))
    const topics = made.children(root).map(({ id }) => id)
    if (areFramed) run(encloseSorted(made, { topics, parent: root }, ids))
    return { records: made, map: made.need('topic', root).place.map }
  } catch (error) {
    if (error instanceof Refusal) return null
    throw error
  }
}
