import type { TopicId } from '../records/ids'
import type { Place } from '../records/place'
import type { TopicRecord } from '../records/topic'

/** A new record of a topic at a place, with nothing on it yet. */
export const blankTopic = (id: TopicId, place: Place, text: string): TopicRecord => ({
  id,
  place,
  text,
  note: null,
  opensMap: null,
  folded: false,
  layout: null,
  width: null,
  numbering: null,
  number: null,
  dates: null,
  look: null,
  branchLook: null,
  picture: null,
  badges: [],
  tags: [],
  held: false,
  task: null,
  trashed: false,
})
