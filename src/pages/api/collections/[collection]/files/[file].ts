import { fileOf } from '../../../../../server/files/find-file'
import { serveContent } from '../../../../../server/files/serve-content'
import { endpoint, pathId } from '../../../../../server/http/endpoint'
import { FileIdInPath } from '../../../../../server/http/path-ids'

export const GET = endpoint({
  access: 'reader',
  async handle({ who, request, params }) {
    return serveContent(
      request,
      await fileOf(who.collection, pathId(FileIdInPath, params.file, 'file')),
      'private, no-cache',
    )
  },
})
