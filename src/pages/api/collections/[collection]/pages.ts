import { inThread } from '../../../../server/heavy/heavy'
import { endpoint } from '../../../../server/http/endpoint'
import { PagesAsked } from '../../../../server/jobs/import-job'
import { knownPagesOf } from '../../../../server/page-differences'

/** The pages from which maps came, by path. */
export const GET = endpoint({ access: 'reader', cost: 5, handle: ({ who }) => knownPagesOf(who) })

/** What is different in pages since they were last brought in. */
export const POST = endpoint({
  access: 'editor',
  body: PagesAsked,
  cost: 100,
  handle: ({ who, body }) => inThread('pageDifferences', who, body),
})
