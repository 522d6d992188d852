import { setImmediate as breathe } from 'node:timers/promises'
import type { MapId } from '../../core/records/ids'
import { buildSite, type SiteFile } from '../../site/site'
import { wholeCollection } from '../collections'
import { transaction } from '../database'
import { siteAssets } from '../publications/assets'
import { storeSite } from '../publications/publication-rows'
import { gatheredForSite } from '../search/gather'
import type { JobKind } from './job-kind'
import { finishJob } from './job-rows'

const REPORT_EVERY_MS = 150

/** The maps of which the site is made; null for all. */
interface Input {
  maps: MapId[] | null
}

/** Makes the site of a collection, and puts it in place of the one before in one go. */
export const publishKind: JobKind<Input | null> = {
  async run(job, input, report) {
    const maps = input?.maps ?? null
    const { collection } = job
    const { records, number } = await wholeCollection(collection)
    const today = new Date().toISOString().slice(0, 10)
    const gathered = await gatheredForSite(collection, maps, today)
    const files: SiteFile[] = []
    let reported = 0
    for (const step of buildSite(records, collection, siteAssets(), maps && new Set(maps), gathered)) {
      files.push(...step.files)
      if (Date.now() - reported > REPORT_EVERY_MS) {
        reported = Date.now()
        report(step.progress.done, step.progress.total)
      }
      await breathe()
    }
    await transaction(async (client) => {
      // First the job: whoever has lost it waits for nobody, and writes nothing.
      await finishJob(client, job, null)
      await storeSite(client, collection, files, number, maps)
    })
  },
  // The site as it was stands until the new one does.
  takeBack: async () => {},
  failed: 'Publishing failed. The site as it was published before is unchanged.',
}
