import { join } from 'node:path'
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
  } catch (error) {
    await database().query('DELETE FROM person WHERE id = ANY($1)', [[person.id, writer.id]])
    throw error
  } finally {
    source.close()
  }
  return true
}
