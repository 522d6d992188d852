import { mapSnapshot } from '../../../../../../server/collections'
import { endpoint, pathId } from '../../../../../../server/http/endpoint'
import { Failure } from '../../../../../../server/http/failure'
import { MapIdInPath } from '../../../../../../server/http/path-ids'

export const GET = endpoint({
  access: 'reader of a map',
  async handle({ who, params }) {
    const held = await mapSnapshot(who, pathId(MapIdInPath, params.map, 'map'))
    if (!held) throw new Failure(404, 'There is no such map in this collection, or it is not open to you.')
    return held
  },
})
