import { z } from 'zod'
import { MapId } from '../../core/records/ids'

/** The ids that stand in paths, for pages that know the server alone. */
export { FileId as FileIdInPath, MapId as MapIdInPath, TopicId as TopicIdInPath } from '../../core/records/ids'

export const ChangeIdInPath = z.uuid().lowercase()
export const GrantIdInPath = z.uuid().lowercase()
export const JobIdInPath = z.uuid().lowercase()

/** Most maps that a browser names as open. */
const MOST_OPEN = 200

/** The maps that `?maps=` names, apart by dots. */
export const mapsIn = (url: URL): Set<string> =>
  new Set((url.searchParams.get('maps') ?? '').split('.', MOST_OPEN).filter((id) => MapId.safeParse(id).success))
