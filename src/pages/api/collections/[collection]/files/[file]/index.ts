import { fileOf } from '../../../../../../server/files/find-file'
import { serveContent, servePicture } from '../../../../../../server/files/serve-content'
import { endpoint, pathId } from '../../../../../../server/http/endpoint'
import { FileIdInPath } from '../../../../../../server/http/path-ids'

/** The content of a file or, with `width`, a picture about as wide as that in px. */
export const GET = endpoint({
  access: 'reader of a map',
  async handle({ who, asked, url, params }) {
    const file = await fileOf(who, pathId(FileIdInPath, params.file, 'file'))
    const width = url.searchParams.get('width')
    return width !== null && file.picture
      ? servePicture(asked, file, Math.max(1, Number.parseInt(width, 10) || 1))
      : serveContent(asked, file, { 'Cache-Control': 'private, no-cache' })
  },
})
