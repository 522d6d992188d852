import { digestOf } from '../collections'
import type { Member } from '../http/endpoint'
import { Failure } from '../http/failure'
import type { Reply } from '../http/reply'
import { publicationOf } from './publication-rows'
import { startPublication } from './publish'
import { zipSite } from './zip'

/** The publication as the publish desk shows it; null before the first one. */
export async function stateFor({ collection }: Member) {
  const publication = await publicationOf(collection)
  if (!publication) return { publication: null }
  const { collection: _, ...shown } = publication
  return { publication: shown }
}

export async function startFor(member: Member) {
  const digest = await digestOf(member.collection, member.role, member.person.id)
  if (!digest.maps.some((map) => !map.trashed)) throw new Failure(409, 'There is no map to publish yet.')
  await startPublication(member.collection, digest.collection.title)
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
