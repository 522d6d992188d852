import { mapSnapshot } from '../../../../../server/collections'
import { endpoint, pathId } from '../../../../../server/http/endpoint'
import { Failure } from '../../../../../server/http/failure'
import { MapIdInPath } from '../../../../../server/http/path-ids'

export const GET = endpoint({
  access: 'reader',
  async handle({ who, params }) {
    const held = await mapSnapshot(who.collection, pathId(MapIdInPath, params.map, 'map'))
    if (!held) throw new Failure(404, 'There is no such map in this collection.')
    return held
  },
})
