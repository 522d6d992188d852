import { mergeReportOf } from '../../../../../server/commands/merge-report'
import { endpoint, pathId } from '../../../../../server/http/endpoint'
import { ChangeIdInPath } from '../../../../../server/http/path-ids'

export const GET = endpoint({
  access: 'reader of a map',
  cost: 5,
  handle: ({ who, params, url }) =>
    mergeReportOf(who, pathId(ChangeIdInPath, params.change, 'report'), url.searchParams.get('form')),
})
