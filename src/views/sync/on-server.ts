import { v7 as uuid } from 'uuid'
import { z } from 'zod'
import type { ToldChange } from '../../core/changes/edit'
import type { Page } from '../../core/formats/page-file'
import { ChangeId, MapId } from '../../core/records/ids'
import { ask, tell, tellTrouble, twice } from '../app/api'
import { CommandAnswer, JobAnswer, Told } from './api-schemas'
import type { Jobs } from './jobs'

const Adopted = z.object({ change: Told, map: MapId })

const Emptied = z.object({ maps: z.number(), topics: z.number() })

/** A file of an import: uploaded before, with its path inside of what is imported. */
export interface ImportedFile {
  path: string
  file: string
}

/** What an import came to. */
export const ImportResult = z.object({
  maps: z.array(MapId),
  unread: z.array(z.object({ page: z.string(), address: z.string(), reason: z.string() })),
})
export type ImportResult = z.infer<typeof ImportResult>

/** How long a command waits for what is still being sent. */
const SENDING_MS = 3_000

/** How long a command that goes over a whole collection may take. */
const COMMAND_MS = 300_000

/** What is asked of the server needs of the session in which it is asked. */
interface Asking {
  /** Resolves when all that was done here is sent. */
  sent(): Promise<void>
  /** Takes note of the id of a change that the server will make for what is shown here. */
  willBeMade(id: string): void
  /** Takes note of a change of one's own that the server made. */
  made(change: ToldChange): void
  /** Takes what was told since. */
  catchUp(): Promise<void>
}

/**
 * What the server is asked to do because it knows the whole collection: commands that reach beyond the maps that are held,
 * and jobs. What goes wrong is told to the person, and null or false comes back.
 */
export class OnServer {
  private readonly base: string

  constructor(
    collection: string,
    private readonly jobs: Jobs,
    private readonly session: Asking,
  ) {
    this.base = `/api/collections/${collection}`
  }

  /**
   * Runs a command on the server, which knows the whole collection. Its id makes sure that it is carried out once, also
   * where the answer is lost and it is sent again.
   */
  async command(
    name: string,
    args: object,
    id: ChangeId = ChangeId.parse(uuid()),
  ): Promise<z.infer<typeof CommandAnswer> | null> {
    // What was just done here may be what it is about.
    await Promise.race([this.session.sent(), new Promise((resolve) => setTimeout(resolve, SENDING_MS))])
    return this.carriedOut(CommandAnswer, `commands/${name}`, { id, args })
  }

  /** Copies a map of another collection into this one; null where that cannot be, and then it was told. */
  async adopt(from: string, map: string): Promise<MapId | null> {
    const answer = await this.carriedOut(Adopted, 'adopted', { id: uuid(), from, map })
    return answer?.map ?? null
  }

  /** Has pages brought in as maps. Resolves when that has ended; null where nothing came of it, and then it was told. */
  async importPages(pages: readonly Page[], files: readonly ImportedFile[] = []): Promise<ImportResult | null> {
    const ended = await this.jobDone('imports', { pages, files })
    if (ended?.state === 'done') return ImportResult.parse(ended.result)
    if (ended) tell('The import was cancelled. What had been made of it lies in the trash.')
    return null
  }

  /** Has all web links of the collection looked at. Resolves when that has ended, with whether it came to its end. */
  async checkWeblinks(): Promise<boolean> {
    return (await this.jobDone('links', {}))?.state === 'done'
  }

  /** Removes a map in the trash for good, or all of them for null. */
  async emptyTrash(map: MapId | null): Promise<void> {
    const path = `${this.base}/trash${map ? `?map=${map}` : ''}`
    try {
      const { maps } = await ask(Emptied, path, { method: 'DELETE', limit: COMMAND_MS })
      await this.session.catchUp()
      tell(maps === 1 ? 'The map was removed for good.' : `${maps} maps were removed for good.`)
    } catch (error) {
      tellTrouble(error)
    }
  }

  /** Has the server make a change, whose id is part of the body, and catches up with it. */
  private async carriedOut<Answer extends { change: ToldChange }>(
    form: z.ZodType<Answer>,
    path: string,
    body: object,
  ): Promise<Answer | null> {
    const asked = { method: 'POST', body, limit: COMMAND_MS, outlivesPage: true } as const
    try {
      const answer = await twice(() => ask(form, `${this.base}/${path}`, asked))
      this.session.made(answer.change)
      await this.session.catchUp()
      return answer
    } catch (error) {
      tellTrouble(error)
      return null
    }
  }
  /** Asks for a job and waits for its end; null where it failed, and then it was told. */
  private async jobDone(path: string, asked: object): Promise<z.infer<typeof JobAnswer> | null> {
    const id = uuid()
    this.session.willBeMade(id)
    const look = () => ask(JobAnswer, `${this.base}/jobs/${id}`)
    try {
      const body = { id, ...asked }
      await twice(() => ask(z.unknown(), `${this.base}/${path}`, { method: 'POST', body, limit: COMMAND_MS }))
      await this.jobs.ended(id, look)
      const ended = await look()
      await this.session.catchUp()
      if (ended.state !== 'failed') return ended
      tellTrouble(new Error(ended.message))
    } catch (error) {
      tellTrouble(error)
    }
    return null
  }
}
