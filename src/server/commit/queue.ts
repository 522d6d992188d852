import { setImmediate as turn } from 'node:timers/promises'
import { log } from '../http/endpoint'
import { beginCommit, type CommitResult, commitChanges, type Submission } from './commit-changes'

interface Waiting extends Submission {
  resolve(result: CommitResult): void
  reject(error: unknown): void
}

/** Most changes in one transaction. */
const BATCH = 64
/** Most transactions of a collection on their way at once. */
const AHEAD = 2

/** Most changes of a collection that wait: nobody is served by more, and all of them are held in memory. */
const MOST_WAITING = 2_000

const queues = new Map<string, Queue>()

/** Whether so much waits to be committed in a collection that more is to come later. */
export const isFull = (collection: string): boolean => (queues.get(collection)?.size ?? 0) >= MOST_WAITING

/**
 * Hands a change to the queue of its collection. Changes that arrive while transactions run go together into the
 * next one, so that many writers share the cost of a commit.
 */
export function submitChange(collection: string, submission: Submission): Promise<CommitResult> {
  return new Promise((resolve, reject) => {
    let queue = queues.get(collection)
    if (!queue) queues.set(collection, (queue = new Queue(collection)))
    queue.add({ ...submission, resolve, reject })
  })
}

class Queue {
  private readonly waiting: Waiting[] = []
  private onTheirWay = 0
  /** Whether the next batch can be prepared before the last one is committed. */
  private mayFollow = true
  private isGathering = false
  /** Resolves when the batch that was begun last is through, whatever came of it. */
  private last: Promise<void> = Promise.resolve()

  constructor(private readonly collection: string) {}

  get size(): number {
    return this.waiting.length
  }

  add(waiting: Waiting): void {
    this.waiting.push(waiting)
    void this.goOn()
  }

  private async goOn(): Promise<void> {
    if (this.isGathering) return
    this.isGathering = true
    // Requests that arrive together are read one after the other: the first waits for the rest of its turn.
    await turn()
    this.isGathering = false
    while (this.waiting.length > 0 && (this.onTheirWay === 0 || (this.mayFollow && this.onTheirWay < AHEAD))) {
      const batch = this.waiting.splice(0, sizeOfNext(this.waiting))
      const { goesAtOnce, results } = beginCommit(this.collection, batch, this.last)
      this.mayFollow = goesAtOnce
      this.onTheirWay++
      this.last = this.settle(batch, results)
    }
  }

  private async settle(batch: readonly Waiting[], committing: Promise<CommitResult[]>): Promise<void> {
    try {
      const results = await committing
      batch.forEach((waiting, i) => {
        waiting.resolve(results[i]!)
      })
    } catch (error) {
      await commitOneByOne(this.collection, batch, error)
    }
    this.onTheirWay--
    if (this.waiting.length > 0) void this.goOn()
    else if (this.onTheirWay === 0) queues.delete(this.collection)
  }
}

/** Whoever is limited to some maps has a transaction of their own. */
function sizeOfNext(queue: readonly Waiting[]): number {
  const limited = queue.findIndex(({ author }) => author.isLimited)
  return limited < 0 ? BATCH : Math.max(1, Math.min(BATCH, limited))
}

/** When the database refuses a batch, each change has its own try, so that one cannot fail the others. */
async function commitOneByOne(collection: string, batch: readonly Waiting[], error: unknown): Promise<void> {
  if (batch.length === 1) {
    fail(batch[0]!, error)
    return
  }
  for (const waiting of batch) {
    try {
      const [result] = await commitChanges(collection, [waiting])
      waiting.resolve(result!)
    } catch (problem) {
      fail(waiting, problem)
    }
  }
}

/** A change that runs into a constraint of the database, or holds what it cannot store, is refused: sent again it would be too. */
function fail({ change, resolve, reject }: Waiting, error: unknown): void {
  const code = error instanceof Error && 'code' in error ? String(error.code) : ''
  if (/^(22|23)/.test(code)) {
    log.error({ error, change: change.id }, 'a change ran into a constraint')
    const message = 'The database cannot keep this as it is. Nothing of it was changed.'
    resolve({ ok: false, id: change.id, problem: { code: 'invalid', message } })
  } else reject(error)
}
