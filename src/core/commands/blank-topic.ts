import type { TopicId } from '../records/ids'
import type { Place } from '../records/place'
import { BARE_TOPIC, type TopicRecord } from '../records/topic'

/** A new record of a topic at a place, with nothing on it yet. */
export const blankTopic = (id: TopicId, place: Place, text: string): TopicRecord => ({ ...BARE_TOPIC, id, place, text })
