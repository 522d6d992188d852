import { endpoint } from '../../../../server/http/endpoint'
import { json } from '../../../../server/http/reply'
import { askImport } from '../../../../server/jobs/ask-import'
import { ImportAsked } from '../../../../server/jobs/import-job'

/** Asks that pages are brought in as maps. Asked for twice under one id, it is done once; see `jobs/[job]` for what came of it. */
export const POST = endpoint({
  access: 'editor',
  body: ImportAsked,
  cost: 50,
  handle: async ({ who, body }) => json(202, await askImport(who, body)),
})
