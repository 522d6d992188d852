import { randomBytes } from 'node:crypto'
import { v7 as uuid } from 'uuid'
import { headingAddress } from '../../core/formats/address'
import type { MapId } from '../../core/records/ids'
import { Failure } from '../http/failure'
import { askJob } from '../jobs/ask-job'
import type { Person } from '../people/person'
import { keepAddress, publicationOf } from './publication-rows'

/** A public address that can be read aloud and not be guessed from the title alone. */
function addressFor(title: string): string {
  const name =
    headingAddress(title)
      .replace(/[^a-z0-9-]/g, '')
      .slice(0, 40)
      .replace(/^-|-$/g, '') || 'site'
  return `${name}-${randomBytes(4).toString('hex')}`
}

/** Asks that a collection, or some maps of it, are published and returns at once. Refused while it is being published. */
export async function startPublication(
  collection: string,
  title: string,
  person: Person,
  maps: readonly MapId[] | null,
): Promise<void> {
  if (!(await publicationOf(collection))) await keepAddress(collection, addressFor(title))
  const label = `Publish ${title.slice(0, 80)}`.toWellFormed()
  if (!(await askJob({ id: uuid(), collection, person, kind: 'publish', label, input: { maps } })))
    throw new Failure(409, 'This collection is being published right now.')
}
