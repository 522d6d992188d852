import type { FileRecord } from '../../core/records/file'
import { Records } from '../../core/records/records'
import { reachesAll } from '../../core/rights/grant'
import { isOpen } from '../../core/rights/within-reach'
import { snapshot } from '../database'
import type { Member } from '../http/endpoint'
import { Failure } from '../http/failure'
import { loadStanding } from '../people/standing'
import { selectRecords } from '../records/tables'

/** A file that is open to somebody: knowing its id opens nothing. */
export async function fileOf({ collection, reach }: Member, id: string): Promise<FileRecord> {
  const file = await snapshot(async (client) => {
    const [found] = await selectRecords(client, 'file', collection, 'AND id = $2', [id])
    if (!found || reachesAll(reach)) return found
    const records = new Records()
    await loadStanding(client, collection, records, [{ kind: 'file', id }])
    return isOpen(records, { kind: 'file', id }, reach) || isBehindAll(records, id) ? found : undefined
  })
  if (!file) throw new Failure(404, 'There is no such file in this collection, or it is not open to you.')
  return file
}

/** The picture behind all maps is seen by whoever sees one. */
const isBehindAll = (records: Records, file: string) => records.collection()?.look?.background?.picture === file
