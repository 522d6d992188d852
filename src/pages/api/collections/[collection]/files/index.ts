import { Use, uploadForPages, uploadToTopic } from '../../../../../server/files/upload'
import { inThread } from '../../../../../server/heavy/heavy'
import { endpoint, pathId } from '../../../../../server/http/endpoint'
import { Failure } from '../../../../../server/http/failure'
import { AttachmentIdInPath, ChangeIdInPath, TopicIdInPath, wholeNumber } from '../../../../../server/http/path-ids'
import { json } from '../../../../../server/http/reply'

/** Uploads one file, the body of the request, onto a topic: as a file, as its picture, or as what lies behind its map; with `use=pages` onto none, for pages that are brought in next; with `replaces` as the newer version of a file on it; with `step`, `of` and, for the first, `first`, as one of several that are undone together; with `id` as a change of that id, which is made once however often it is sent. */
export const POST = endpoint({
  access: 'editor of a map',
  cost: 20,
  async handle({ who, asked, url }) {
    const name = url.searchParams.get('name') ?? ''
    const givenId = url.searchParams.get('id')
    const id = givenId === null ? null : pathId(ChangeIdInPath, givenId, 'change')
    if (url.searchParams.get('use') === 'pages')
      return json(201, { change: await uploadForPages(who, name, asked.bytes(), id) })
    const topic = pathId(TopicIdInPath, url.searchParams.get('topic') ?? undefined, 'topic')
    const use = Use.safeParse(url.searchParams.get('use') ?? 'file')
    if (!use.success) throw new Failure(400, 'A file can be attached, or used as a picture or a background.')
    const named = url.searchParams.get('replaces')
    const replaces = named === null ? null : pathId(AttachmentIdInPath, named, 'file')
    const purpose = { use: use.data, replaces, id }
    const stepId = url.searchParams.get('step')
    const of = wholeNumber(url.searchParams.get('of'), 1)
    const step =
      stepId === null
        ? null
        : { id: pathId(ChangeIdInPath, stepId, 'step'), of, isFirst: url.searchParams.has('first') }
    const change = await uploadToTopic(who, topic, name, purpose, asked.bytes(), step)
    return json(201, { change })
  },
})

/** Every file of the collection with where it is. */
export const GET = endpoint({
  access: 'reader of a map',
  cost: 50,
  handle: ({ who }) => inThread('fileLedgerOf', who),
})
