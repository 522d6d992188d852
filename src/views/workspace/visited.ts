import { z } from 'zod'
import { MapId, TopicId } from '../../core/records/ids'

const Visit = z.object({ map: MapId, topic: TopicId.nullable() })
export type Visit = z.infer<typeof Visit>

const KEY = 'folvet-visited'
const MOST = 40

/** Where this person has been in this browser, the latest first, in any collection. */
export function visits(): Visit[] {
  try {
    return z.array(Visit).parse(JSON.parse(localStorage.getItem(KEY) ?? '[]'))
  } catch {
    // What somebody else wrote there, or a browser that keeps nothing: nobody has been anywhere.
    return []
  }
}

export function noteVisit(visit: Visit): void {
  const others = visits().filter(({ map, topic }) => map !== visit.map || topic !== visit.topic)
  try {
    localStorage.setItem(KEY, JSON.stringify([visit, ...others].slice(0, MOST)))
  } catch {
    // It is offered less then.
  }
}
