import { type FileRow, fileLedger } from '../core/network/file-ledger'
import { mayRead, reachesAll } from '../core/rights/grant'
import { wholeCollection } from './collections'
import type { Member } from './http/endpoint'

/** Every file of a collection with where it is, as far as that is open to somebody. For a thread of its own. */
export async function fileLedgerOf({ collection, reach }: Member): Promise<FileRow[]> {
  const { records } = await wholeCollection(collection)
  return fileLedger(records, (map) => mayRead(reach, map), reachesAll(reach))
}
