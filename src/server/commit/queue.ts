import { setImmediate as turn } from 'node:timers/promises'
import { log } from '../http/endpoint'
import { type CommitResult, commitChanges, type Submission } from './commit-changes'

interface Waiting extends Submission {
  resolve(result: CommitResult): void
  reject(error: unknown): void
}

/** Most changes in one transaction. */
const BATCH = 64

const queues = new Map<string, Waiting[]>()
const running = new Set<string>()

/**
 * Hands a change to the queue of its collection. Changes that arrive while a transaction runs go together into the
 * next one, so that many writers share the cost of a commit.
 */
export function submitChange(collection: string, submission: Submission): Promise<CommitResult> {
  return new Promise((resolve, reject) => {
    const queue = queues.get(collection)
    const waiting = { ...submission, resolve, reject }
    if (queue) queue.push(waiting)
    else queues.set(collection, [waiting])
    void run(collection)
  })
}

async function run(collection: string): Promise<void> {
  if (running.has(collection)) return
  running.add(collection)
  try {
    for (let queue = queues.get(collection); queue && queue.length > 0; queue = queues.get(collection)) {
      // Requests that arrive together are read one after the other: the first waits for the rest of its turn.
      await turn()
      const batch = queue.splice(0, sizeOfNext(queue))
      try {
        const results = await commitChanges(collection, batch)
        batch.forEach((waiting, i) => {
          waiting.resolve(results[i]!)
        })
      } catch (error) {
        await commitOneByOne(collection, batch, error)
      }
    }
    queues.delete(collection)
  } finally {
    running.delete(collection)
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
