import { z } from 'zod'
import { MapId } from '../../core/records/ids'

/** The ids that stand in paths, for pages that know the server alone. */
export {
  AttachmentId as AttachmentIdInPath,
  ChangeId as ChangeIdInPath,
  FileId as FileIdInPath,
  MapId as MapIdInPath,
  TopicId as TopicIdInPath,
} from '../../core/records/ids'

export const CalendarIdInPath = z.uuid().lowercase()
export const GrantIdInPath = z.uuid().lowercase()
export const JobIdInPath = z.uuid().lowercase()

/** Most maps that a browser names as open. */
const MOST_OPEN = 200

/** The maps that `?maps=` names, apart by dots. */
export const mapsIn = (url: URL): Set<string> =>
  new Set((url.searchParams.get('maps') ?? '').split('.', MOST_OPEN).filter((id) => MapId.safeParse(id).success))

/** A whole number from 0 up as somebody wrote it, and `otherwise` where it is none. */
export function wholeNumber(text: string | null | undefined, otherwise: number): number {
  const number = text ? Number(text) : Number.NaN
  return Number.isSafeInteger(number) && number >= 0 ? number : otherwise
}

/** The change up to which `?rows=` says that digest rows are known; never beyond the last change that is known. */
export const rowsSeenIn = (url: URL, seen: number): number =>
  Math.min(seen, wholeNumber(url.searchParams.get('rows'), seen))
