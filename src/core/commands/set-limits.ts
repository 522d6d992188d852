import type { CollectionRecord } from '../records/collection'
import type { CollectionId } from '../records/ids'
import { command } from './command'

/** Sets from when on maps of a collection are called crowded; null sets the usual limits. Refused where the collection is gone. */
export const setLimits = command((change, args: { collection: CollectionId; limits: CollectionRecord['limits'] }) => {
  change.update('collection', args.collection, { limits: args.limits })
  return { label: 'Set when a map is crowded', select: [] }
})
