import { isAway, transaction } from '../database'
import { beginReading, countToRead, endReading, keepPages, type ToldText } from '../files/reading/reading-rows'
import type { takeText } from '../files/reading/take-text'
import { Thread } from '../heavy/thread'
import { indexFileTexts } from '../search/search-index'
import type { JobKind } from './job-kind'
import { finishJob } from './job-rows'

/** How long one file may take, in ms, and how much memory, in MB. */
const LIMITS = { ms: 60_000, mb: 512 }
/** After so long the rest is left to another job, in ms: others of the collection wait meanwhile. */
const TURN_MS = 20_000

/**
 * Takes the text out of the files of a collection that were not read yet, each in a thread of its own limits, and puts it into the index for
 * searching. What was read is kept at once: whoever takes the job over goes on behind it.
 */
export const readFilesKind: JobKind<null> = {
  async run(job, _, report) {
    const thread = new Thread<{ takeText: typeof takeText }>(LIMITS)
    const total = await countToRead(job.collection)
    const end = Date.now() + TURN_MS
    let done = 0
    report(done, total)
    while (Date.now() < end) {
      const content = await beginReading(job.collection)
      if (!content) break
      let state: ToldText['state'] = 'failed'
      try {
        const pages = (await thread.run('takeText', [content])) ?? []
        await keepPages(content.sha256, pages)
        state = pages.some((text) => text !== '') ? 'read' : 'without text'
      } catch (error) {
        // What cannot be read stays a file like any other.
        if (isAway(error)) throw error
      }
      // Its text is there before it is told who has it: a file that comes meanwhile takes it into the index itself.
      await transaction(async (client) => {
        await indexFileTexts(client, content.sha256)
        await endReading(client, content.sha256, state)
      })
      report(++done, Math.max(total, done))
    }
    await transaction((client) => finishJob(client, job, null))
  },
  // What was read stays read.
  takeBack: async () => {},
  failed: 'The files could not be read. Nothing was changed; they can be opened and downloaded all the same.',
  isOurs: true,
}
