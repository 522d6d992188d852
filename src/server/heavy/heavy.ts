import { join } from 'node:path'
import { Worker } from 'node:worker_threads'
import pLimit from 'p-limit'
import { type Problem, Refusal } from '../../core/changes/problem'
import { Failure } from '../http/failure'
import { projectRoot } from '../project-root'
import type { Tasks } from './tasks'

/** How long one task may take, in ms, and how much memory the thread may have, in MB. */
const LIMIT_MS = 120_000
const LIMIT_MB = 768
/** Tasks that wait for their turn. */
const MOST_WAITING = 40
/** The thread ends where it has had nothing to do for so long. */
const IDLE_MS = 60_000

/** What the thread answers: a value, or what went wrong, in a form that can be handed over. */
export type Answer =
  | { ok: true; value: unknown }
  | { ok: false; refusal: Problem }
  | { ok: false; status: number; message: string }
  | { ok: false; fault: string }

const turns = pLimit(1)
let worker: Worker | null = null
let idle: ReturnType<typeof setTimeout> | undefined

/**
 * Has something computed in a thread of its own, with limits of time and memory, one task at a time: whatever somebody brings
 * in, everybody else is answered meanwhile. Throws what the task throws, and a Failure where it is too much.
 */
export async function inThread<Name extends keyof Tasks>(
  name: Name,
  ...args: Parameters<Tasks[Name]>
): Promise<Awaited<ReturnType<Tasks[Name]>>> {
  if (turns.pendingCount >= MOST_WAITING)
    throw new Failure(503, 'Too much is being computed just now. Please try again in a moment.')
  return (await turns(() => run(name, args))) as Awaited<ReturnType<Tasks[Name]>>
}

function started(): Worker {
  clearTimeout(idle)
  if (worker) return worker
  const fresh = new Worker(join(projectRoot(), 'dist', 'server', 'heavy-worker.mjs'), {
    resourceLimits: { maxOldGenerationSizeMb: LIMIT_MB },
  })
  fresh.on('exit', () => {
    if (worker === fresh) worker = null
  })
  worker = fresh
  return fresh
}

function stop(): void {
  void worker?.terminate()
  worker = null
}

function run(name: string, args: unknown[]): Promise<unknown> {
  const thread = started()
  return new Promise<unknown>((resolve, reject) => {
    const timer = setTimeout(stop, LIMIT_MS)
    const settle = (work: () => void) => {
      clearTimeout(timer)
      thread.off('message', answered)
      thread.off('exit', failed)
      thread.off('error', failed)
      idle = setTimeout(stop, IDLE_MS)
      idle.unref()
      work()
    }
    const answered = (answer: Answer) => settle(() => (answer.ok ? resolve(answer.value) : reject(errorOf(answer))))
    const failed = () => settle(() => reject(new Failure(422, TOO_MUCH)))
    thread.on('message', answered)
    thread.on('exit', failed)
    thread.on('error', failed)
    thread.postMessage({ name, args })
  })
}

const TOO_MUCH = 'This is too much to be done in one go. Nothing was changed; please try it in parts.'

function errorOf(answer: Exclude<Answer, { ok: true }>): Error {
  if ('refusal' in answer) return new Refusal(answer.refusal)
  return 'status' in answer ? new Failure(answer.status, answer.message) : new Error(answer.fault)
}
