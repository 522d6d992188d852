import { inThread } from '../../../../server/heavy/heavy'
import { endpoint, pathId } from '../../../../server/http/endpoint'
import { TopicIdInPath } from '../../../../server/http/path-ids'

export const GET = endpoint({
  access: 'reader of a map',
  cost: 50,
  handle: ({ who, url }) => {
    const end = (name: string) => pathId(TopicIdInPath, url.searchParams.get(name) ?? '', 'topic')
    return inThread('wayBetween', who, end('from'), end('to'))
  },
})
