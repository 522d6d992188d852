import { digestOf } from '../collections'
import type { Member } from '../http/endpoint'
import { Failure } from '../http/failure'
import type { Reply } from '../http/reply'
import { publicationOf, takeDown } from './publication-rows'
import { startPublication } from './publish'
import { zipSite } from './zip'

/** The publication as the publish desk shows it; null before the first one. */
export async function stateFor({ collection }: Member) {
  const publication = await publicationOf(collection)
  // One that was taken down keeps its address, and nothing else.
  if (!publication || (publication.state === 'done' && publication.changeNumber === 0)) return { publication: null }
  const { collection: _, ...shown } = publication
  return { publication: shown }
}

export async function startFor(member: Member) {
  const digest = await digestOf(member.collection, member.role, member.person.id)
  if (digest.collection.trashed)
    throw new Failure(409, 'This collection is in the trash. Take it back before you publish it.')
  if (!digest.maps.some((map) => !map.trashed)) throw new Failure(409, 'There is no map to publish yet.')
  await startPublication(member.collection, digest.collection.title)
  return stateFor(member)
}

/** Takes the site down, also that of a collection in the trash. */
export async function takeDownFor({ collection }: Member) {
  const publication = await publicationOf(collection)
  if (publication?.state === 'running')
    throw new Failure(409, 'This collection is being published right now. Wait until that has ended.')
  await takeDown(collection)
  return { publication: null }
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
