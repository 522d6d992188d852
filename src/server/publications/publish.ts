import { randomBytes } from 'node:crypto'
import { setImmediate as breathe } from 'node:timers/promises'
import { headingAddress } from '../../core/formats/address'
import { buildSite, type SiteFile } from '../../site/site'
import { wholeCollection } from '../collections'
import { transaction } from '../database'
import { log } from '../http/endpoint'
import { Failure } from '../http/failure'
import { loadCollection } from '../records/tables'
import { siteAssets } from './assets'
import { beginPublication, failPublication, publicationOf, reportProgress, storeSite } from './publication-rows'

/** A public address that can be read aloud and not be guessed from the title alone. */
async function addressFor(collection: string, title: string): Promise<string> {
  const known = await publicationOf(collection)
  if (known) return known.address
  const name =
    headingAddress(title)
      .replace(/[^a-z0-9-]/g, '')
      .slice(0, 40)
      .replace(/^-|-$/g, '') || 'site'
  return `${name}-${randomBytes(4).toString('hex')}`
}

/** Starts publishing and returns at once; progress and outcome are read from the publication. */
export async function startPublication(collection: string, title: string): Promise<void> {
  if (!(await beginPublication(collection, await addressFor(collection, title))))
    throw new Failure(409, 'This collection is being published right now.')
  publish(collection).catch(async (error: unknown) => {
    log.error({ error, collection }, 'publishing failed')
    await failPublication(collection, 'Publishing failed. The site as it was published before is unchanged.').catch(
      () => {},
    )
  })
}

const REPORT_EVERY_MS = 150

async function publish(collection: string): Promise<void> {
  const { records, number } = await wholeCollection(collection, (client, into) =>
    loadCollection(client, into, collection),
  )
  const files: SiteFile[] = []
  let reported = 0
  for (const step of buildSite(records, collection, siteAssets())) {
    files.push(...step.files)
    if (Date.now() - reported > REPORT_EVERY_MS) {
      reported = Date.now()
      await reportProgress(collection, step.progress.done, step.progress.total)
    }
    await breathe()
  }
  await transaction((client) => storeSite(client, collection, files, number))
}
