import { uploadToTopic } from '../../../../../server/files/upload'
import { endpoint, json, pathId } from '../../../../../server/http/endpoint'
import { TopicIdInPath } from '../../../../../server/http/path-ids'
import { bytesOf } from '../../../../../server/http/streams'

/** Uploads one file, the body of the request, onto a topic. */
export const POST = endpoint({
  access: 'editor',
  async handle({ who, request, url }) {
    const topic = pathId(TopicIdInPath, url.searchParams.get('topic') ?? undefined, 'topic')
    const change = await uploadToTopic(
      who.collection,
      who.person,
      topic,
      url.searchParams.get('name') ?? '',
      bytesOf(request),
    )
    return json(201, { change })
  },
})
