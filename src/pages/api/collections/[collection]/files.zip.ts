import { zipBranch } from '../../../../server/files/zip-branch'
import { endpoint, pathId } from '../../../../server/http/endpoint'
import { TopicIdInPath } from '../../../../server/http/path-ids'

/** All files in the branch of a topic, as a zip. */
export const GET = endpoint({
  access: 'reader of a map',
  cost: 50,
  handle: ({ who, url }) => zipBranch(who, pathId(TopicIdInPath, url.searchParams.get('topic') ?? undefined, 'topic')),
})
