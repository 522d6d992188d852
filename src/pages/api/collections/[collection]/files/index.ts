import { Use, uploadToTopic } from '../../../../../server/files/upload'
import { endpoint, json, pathId } from '../../../../../server/http/endpoint'
import { Failure } from '../../../../../server/http/failure'
import { TopicIdInPath } from '../../../../../server/http/path-ids'
import { bytesOf } from '../../../../../server/http/streams'

/** Uploads one file, the body of the request, onto a topic: as a file, as its picture, or as what lies behind its map. */
export const POST = endpoint({
  access: 'editor',
  async handle({ who, request, url }) {
    const topic = pathId(TopicIdInPath, url.searchParams.get('topic') ?? undefined, 'topic')
    const use = Use.safeParse(url.searchParams.get('use') ?? 'file')
    if (!use.success) throw new Failure(400, 'A file can be attached, or used as a picture or a background.')
    const change = await uploadToTopic(
      who.collection,
      who.person,
      topic,
      url.searchParams.get('name') ?? '',
      use.data,
      bytesOf(request),
    )
    return json(201, { change })
  },
})
