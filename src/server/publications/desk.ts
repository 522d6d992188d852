import { z } from 'zod'
import { MapId } from '../../core/records/ids'
import { digestOf } from '../collections'
import type { Member } from '../http/endpoint'
import { Failure } from '../http/failure'
import type { Reply } from '../http/reply'
import { isFinished, newestJob } from '../jobs/job-rows'
import { countChangesSince, publicationOf, takeDown } from './publication-rows'
import { startPublication } from './publish'
import { zipSite } from './zip'

/** The site as the publish desk shows it, null where there is none, and the publishing that goes on or ended last. */
export async function stateFor({ collection }: Member) {
  const [found, job] = await Promise.all([publicationOf(collection), newestJob(collection, 'publish')])
  // One that was taken down keeps its address, and nothing else.
  const site = found && found.changeNumber > 0 ? found : null
  const changesSince = site ? await countChangesSince(collection, site.changeNumber) : 0
  return {
    publication: site && {
      address: site.address,
      changeNumber: site.changeNumber,
      changesSince,
      finishedAt: site.finishedAt,
      maps: site.maps,
    },
    job,
  }
}

/** Some maps of a collection that alone are to be published. */
export const ChosenMaps = z.strictObject({ maps: z.array(MapId).min(1).max(10_000) })

/** Publishes all maps of a collection, or those that are named. Refused where one of these is not there any more. */
export async function startFor(member: Member, maps: readonly MapId[] | null) {
  const digest = await digestOf(member)
  if (digest.collection.trashed)
    throw new Failure(409, 'This collection is in the trash. Take it back before you publish it.')
  if (!digest.maps.some((map) => !map.trashed)) throw new Failure(409, 'There is no map to publish yet.')
  const kept = new Set<string>(digest.maps.flatMap(({ id, trashed }) => (trashed ? [] : id)))
  if (maps?.some((map) => !kept.has(map)))
    throw new Failure(409, 'One of these maps is gone, or in the trash. Choose anew what the site should hold.')
  await startPublication(member.collection, digest.collection.title, member.person, maps)
  return stateFor(member)
}

/** Takes the site down, also that of a collection in the trash. */
export async function takeDownFor(member: Member) {
  const { collection } = member
  const job = await newestJob(collection, 'publish')
  if (job && !isFinished(job.state))
    throw new Failure(409, 'This collection is being published right now. Wait until that has ended.')
  await takeDown(collection)
  return stateFor(member)
}

export async function zipFor({ collection }: Member): Promise<Reply> {
  const publication = await publicationOf(collection)
  if (!publication || publication.changeNumber === 0)
    throw new Failure(404, 'This collection has not been published yet.')
  return {
    status: 200,
    headers: {
      'Content-Type': 'application/zip',
      'Content-Disposition': `attachment; filename="${publication.address}.zip"`,
      'Cache-Control': 'no-store',
    },
    body: zipSite(publication),
  }
}
