import { fileOf } from '../../../../../../server/files/find-file'
import { textOf } from '../../../../../../server/files/reading/reading-rows'
import { endpoint, pathId } from '../../../../../../server/http/endpoint'
import { FileIdInPath } from '../../../../../../server/http/path-ids'

/** The text inside a file, page by page, as far as it has been read. */
export const GET = endpoint({
  access: 'reader of a map',
  cost: 5,
  handle: async ({ who, params }) => textOf((await fileOf(who, pathId(FileIdInPath, params.file, 'file'))).sha256),
})
