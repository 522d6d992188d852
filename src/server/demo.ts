import { join } from 'node:path'
import { addMember, createCollection } from './collections'
import { database, transaction } from './database'
import { importFolder } from './import-folder'
import { createPerson, personByAddress } from './people/people'
import { projectRoot } from './project-root'

export const DEMO_ADDRESS = 'demo@vennmoor.example'

/** Whether the demo person is there to sign in with one click. */
export const demoIsLoaded = async (): Promise<boolean> => (await personByAddress(DEMO_ADDRESS)) !== null

/** Loads the demo collection once, through the import that everybody has. Does nothing where it was loaded before. */
export async function loadDemo(): Promise<boolean> {
  if (await demoIsLoaded()) return false
  const { collection, person, writer } = await transaction(async (client) => {
    const made = await createPerson(client, 'Ines Calder', DEMO_ADDRESS, crypto.randomUUID())
    // Somebody else loads the handbook, so that the demo person's first undo does not take all of it away.
    const writer = await createPerson(client, 'Henrik Sollmann', 'henrik@vennmoor.example', crypto.randomUUID())
    const id = await createCollection(client, made.id, 'Vennmoor handbook')
    await addMember(client, id, writer.id, 'editor')
    return { person: made, writer, collection: id }
  })
  try {
    await importFolder(collection, writer, join(projectRoot(), 'demo', 'vennmoor'))
  } catch (error) {
    await database().query('DELETE FROM collection WHERE id = $1', [collection])
    await database().query('DELETE FROM person WHERE id = ANY($1)', [[person.id, writer.id]])
    throw error
  }
  return true
}
