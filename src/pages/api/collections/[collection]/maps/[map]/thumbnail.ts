import { endpoint, pathId } from '../../../../../../server/http/endpoint'
import { Failure } from '../../../../../../server/http/failure'
import { MapIdInPath } from '../../../../../../server/http/path-ids'
import { thumbnailFor } from '../../../../../../server/thumbnails'

export const GET = endpoint({
  access: 'reader of a map',
  cost: 3,
  async handle({ who, params }) {
    const thumbnail = await thumbnailFor(who, pathId(MapIdInPath, params.map, 'map'))
    if (!thumbnail) throw new Failure(404, 'There is no such map in this collection, or it is not open to you.')
    return thumbnail
  },
})
