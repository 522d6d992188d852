import type { TopicId } from '../records/ids'
import type { Place } from '../records/place'
import { BARE_TOPIC as bare, type TopicRecord } from '../records/topic'

/**
 * A new record of a topic at a place, with nothing on it yet. Its fields are written out: spread over, they would lie outside
 * of the object, which takes several times as long and more memory where tens of thousands are made.
 */
export const blankTopic = (id: TopicId, place: Place, text: string): TopicRecord => ({
  id,
  place,
  text,
  note: bare.note,
  opensMap: bare.opensMap,
  folded: bare.folded,
  layout: bare.layout,
  width: bare.width,
  numbering: bare.numbering,
  number: bare.number,
  dates: bare.dates,
  look: bare.look,
  branchLook: bare.branchLook,
  picture: bare.picture,
  badges: bare.badges,
  tags: bare.tags,
  held: bare.held,
  free: bare.free,
  task: bare.task,
  work: bare.work,
  apart: bare.apart,
  gathers: bare.gathers,
  copyOf: bare.copyOf,
  trashed: bare.trashed,
})
