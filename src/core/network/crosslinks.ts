import type { CrosslinkRecord } from '../records/crosslink'
import type { EnclosureRecord } from '../records/enclosure'
import type { Records } from '../records/records'

/** What an enclosure is called: its title, else what it is around. */
export function enclosureName(records: Records, { title, topics }: EnclosureRecord): string {
  if (title !== '') return title
  const first = topics.map((topic) => records.get('topic', topic)).find((topic) => topic && !topic.trashed)
  return first ? `the enclosure around ${first.text || 'Untitled'}` : 'an enclosure'
}

/** The enclosure that a cross-link leads to; undefined where it leads elsewhere, or the enclosure is gone. */
export function enclosureAtEnd(records: Records, link: CrosslinkRecord): EnclosureRecord | undefined {
  const enclosure = records.get('enclosure', link.toEnclosure)
  return enclosure?.trashed ? undefined : enclosure
}

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
