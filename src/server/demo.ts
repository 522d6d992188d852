import { join } from 'node:path'
import type { MapId } from '../core/records/ids'
import { insertCalendar } from './calendars/calendar-rows'
import { addMember } from './collections'
import { unlimited } from './commit/commit-changes'
import { database, transaction } from './database'
import { openSource } from './folders/folder-source'
import { importCollection } from './folders/import-collection'
import { createPerson, personByAddress } from './people/people'
import { projectRoot } from './project-root'

export const DEMO_ADDRESS = 'demo@vennmoor.example'

/** Whether the demo person is there to sign in with one click. */
export const demoIsLoaded = async (): Promise<boolean> => (await personByAddress(DEMO_ADDRESS)) !== null

/** Loads the demo collection once, through the import that everybody has. Does nothing where it was loaded before. */
export async function loadDemo(): Promise<boolean> {
  if (await demoIsLoaded()) return false
  const { person, writer } = await transaction(async (client) => ({
    person: await createPerson(client, 'Ines Calder', DEMO_ADDRESS, crypto.randomUUID()),
    // Somebody else loads the handbook, so that the demo person's first undo does not take all of it away.
    writer: await createPerson(client, 'Henrik Sollmann', 'henrik@vennmoor.example', crypto.randomUUID()),
  }))
  const source = await openSource(join(projectRoot(), 'demo', 'vennmoor'))
  try {
    const { collection } = await importCollection(source, unlimited(writer))
    await transaction(async (client) => {
      await addMember(client, collection, person.id, 'owner')
      await addMember(client, collection, writer.id, 'editor')
    })
    await keepInStep(collection, person.id)
  } catch (error) {
    await database().query('DELETE FROM person WHERE id = ANY($1)', [[person.id, writer.id]])
    throw error
  } finally {
    source.close()
  }
  return true
}

/** The map of the field season is kept in step with a calendar of the small server that was started beside, where one was. */
async function keepInStep(collection: string, person: string): Promise<void> {
  const { FOLVET_CALENDAR: server } = process.env
  const { rows } = await database().query<{ id: MapId }>(
    "SELECT id FROM map WHERE collection = $1 AND title = 'Field season 2026'",
    [collection],
  )
  const [season] = rows
  if (!server || !season) return
  await insertCalendar({
    ...{
      collection,
      person,
      name: 'Field season',
      address: `${server}calendars/Field-season/`,
      user: '',
      password: '',
    },
    zone: Intl.DateTimeFormat().resolvedOptions().timeZone,
    ...{ origin: '', gives: 'map', givesMap: season.id, takes: 'chosen', intoMap: season.id },
  })
}
