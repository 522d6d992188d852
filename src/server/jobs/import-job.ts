import { v7 as uuid } from 'uuid'
import { z } from 'zod'
import type { Change } from '../../core/changes/edit'
import { Refusal } from '../../core/changes/problem'
import { importPages } from '../../core/commands/import-pages'
import { ChangeId, type CollectionId, FileId, MapId, TopicId } from '../../core/records/ids'
import { MAX_PAGE_PATH, MAX_PAGE_TEXT } from '../../core/records/page'
import { Records } from '../../core/records/records'
import { unlimited } from '../commit/commit-changes'
import { commitParts, partsOf, takeBackStep } from '../commit/commit-in-parts'
import { snapshot, transaction } from '../database'
import { loadInto } from '../records/tables'
import type { JobKind } from './job-kind'
import { finishJob, type HeldJob, keepPlan, planOf } from './job-rows'

/** Pages with their paths inside of what is brought in, and the files, uploaded before, to which they lead. */
export const PagesAsked = z.strictObject({
  pages: z
    .array(z.strictObject({ path: z.string().min(1).max(MAX_PAGE_PATH), text: z.string().max(MAX_PAGE_TEXT) }))
    .min(1)
    .max(2_000),
  files: z
    .array(z.strictObject({ path: z.string().min(1).max(MAX_PAGE_PATH), file: FileId }))
    .max(2_000)
    .default([]),
})

/** An import, as it is asked for. */
export const ImportAsked = PagesAsked.extend({ id: ChangeId })
type Input = z.infer<typeof PagesAsked>

/** What an import came to, for whoever asked. */
const ImportResult = z.object({
  maps: z.array(MapId),
  select: z.array(TopicId),
  unread: z.array(z.object({ page: z.string(), address: z.string(), reason: z.string() })),
})

interface Plan {
  parts: Change[]
  result: z.infer<typeof ImportResult>
}

/**
 * Brings pages in as maps, committed in parts that are one step of history and one undo. The parts are worked out once and
 * kept, so that whoever takes the job over goes on where it was: a part that is committed already is known by its id.
 */
export const importKind: JobKind<Input> = {
  async run(job, input, report) {
    const { parts, result } = ((await planOf(job)) as Plan | null) ?? (await makePlan(job, input))
    report(0, parts.length)
    const committed = await commitParts(job.collection, parts, authorOf(job), (done) => report(done, parts.length))
    if (!committed.ok) throw new Refusal(committed.problem)
    report(parts.length, parts.length)
    await transaction((client) => finishJob(client, job, result))
  },
  takeBack: (job) => takeBackStep(job.collection, job.id, authorOf(job)),
  failed: 'The import failed. If something had been made of it, that lies in the trash.',
}

const authorOf = (job: HeldJob) => unlimited({ id: job.person, name: job.personName })

async function makePlan(job: HeldJob, { pages, files = [] }: Input): Promise<Plan> {
  const records = new Records()
  await snapshot((client) => loadInto(records, client, 'collection', job.collection))
  const outcome = importPages(
    records,
    { collection: job.collection as CollectionId, pages, files: new Map(files.map(({ path, file }) => [path, file])) },
    { newId: uuid },
  )
  const { change, maps, select, unread } = outcome
  const plan = { parts: partsOf({ ...change, id: ChangeId.parse(job.id) }), result: { maps, select, unread } }
  await keepPlan(job, plan)
  return plan
}
