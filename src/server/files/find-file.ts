import type { FileRecord } from '../../core/records/file'
import { snapshot } from '../database'
import { Failure } from '../http/failure'
import { selectRecords } from '../records/tables'

export async function fileOf(collection: string, id: string): Promise<FileRecord> {
  const [file] = await snapshot((client) => selectRecords(client, 'file', collection, 'AND id = $2', [id]))
  if (!file) throw new Failure(404, 'There is no such file in this collection.')
  return file
}
