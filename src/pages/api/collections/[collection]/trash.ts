import { inThread } from '../../../../server/heavy/heavy'
import { endpoint, pathId } from '../../../../server/http/endpoint'
import { MapIdInPath } from '../../../../server/http/path-ids'

/** Removes what lies in the trash for good: one map with `?map=`, else all of them. */
export const DELETE = endpoint({
  access: 'editor',
  cost: 100,
  handle({ who, url }) {
    const only = url.searchParams.get('map')
    return inThread('emptyTrash', who, only === null ? null : pathId(MapIdInPath, only, 'map'))
  },
})
