import { randomUUID } from 'node:crypto'

/**
 * Has pages imported into a collection and waits until that has ended, for tests and measurements. `ask` sends a request
 * below the address of the collection and returns what was answered, as JSON.
 * @param {(method: 'GET' | 'POST', path: string, body?: object) => Promise<unknown>} ask
 * @param {{ path: string, text: string }[]} pages
 * @returns {Promise<string[]>} the maps that were made
 */
export async function importAndWait(ask, pages) {
  const id = randomUUID()
  await ask('POST', '/imports', { id, pages })
  for (;;) {
    const job = /** @type {{ state: string, message: string, result: { maps: string[] } }} */ (
      await ask('GET', `/jobs/${id}`)
    )
    if (job.state === 'done') return job.result.maps
    if (job.state === 'failed' || job.state === 'cancelled') throw new Error(`The import failed: ${job.message}`)
    await new Promise((resolve) => setTimeout(resolve, 20))
  }
}
