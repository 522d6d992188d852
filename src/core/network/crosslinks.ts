import type { CrosslinkRecord } from '../records/crosslink'
import type { Records } from '../records/records'

/**
 * Whether a cross-link is shown by a sign at its ends instead of a line: because a person made it quiet, or because
 * its far end stands on another map or is not among the records.
 */
export function crosslinkIsQuiet(records: Records, link: CrosslinkRecord): boolean {
  if (link.drawn !== 'line') return true
  const from = records.get('topic', link.from)
  const to = records.get('topic', link.toTopic)
  return !from || !to || from.place.map !== to.place.map
}
