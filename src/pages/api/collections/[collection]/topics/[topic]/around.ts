import { aroundTopic } from '../../../../../../server/around-topic'
import { endpoint, pathId } from '../../../../../../server/http/endpoint'
import { TopicIdInPath } from '../../../../../../server/http/path-ids'

/** What a topic has to do with topics anywhere in the collection: notes that lead to it, others that carry its note or its addresses. */
export const GET = endpoint({
  access: 'reader of a map',
  cost: 5,
  handle: ({ who, params }) => aroundTopic(who, pathId(TopicIdInPath, params.topic, 'topic')),
})
