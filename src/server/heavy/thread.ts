import { join } from 'node:path'
import { Worker } from 'node:worker_threads'
import { type Problem, Refusal } from '../../core/changes/problem'
import { Failure } from '../http/failure'
import { projectRoot } from '../project-root'

/** What the thread answers: how far it is, and at the end a value, or what went wrong, in a form that can be handed over. */
export type Answer =
  | { ok: true; value: unknown }
  | { ok: false; refusal: Problem }
  | { ok: false; status: number; message: string }
  | { ok: false; fault: string; code?: string | undefined }
export type Message = Answer | { progress: { done: number; total: number } }

interface Limits {
  /** How long one task may take, in ms. */
  ms: number
  /** How much memory the thread may have, in MB. */
  mb: number
}

/** The thread ends where it has had nothing to do for so long. */
const IDLE_MS = 60_000

/** How a task is followed, and given up. */
interface Following {
  progress?(at: { done: number; total: number }): void
  signal?: AbortSignal
}

/** Something came that took more time or memory than there is. */
class TooMuch extends Failure {
  constructor() {
    super(422, 'This is too much to be done in one go. Nothing was changed; please try it in parts.')
  }
}

/** What can be run in a thread, by name: all, or some, of `tasks.ts`. */
type TaskMap = Record<string, (...args: never[]) => unknown>

/** A thread for tasks with limits of time and memory, one after the other. It is started when there is something to do. */
export class Thread<Tasks extends TaskMap> {
  private worker: Worker | null = null
  /** Resolves when a thread that was stopped has ended: nothing is begun beside it. */
  private ending: Promise<unknown> | null = null
  private idle: ReturnType<typeof setTimeout> | undefined

  constructor(private readonly limits: Limits) {}

  /** Throws what the task throws, TooMuch where it goes beyond its limits, and the reason where it was given up. */
  async run<Name extends keyof Tasks>(
    name: Name,
    args: Parameters<Tasks[Name]>,
    { progress, signal }: Following = {},
  ): Promise<Awaited<ReturnType<Tasks[Name]>>> {
    await this.ending
    signal?.throwIfAborted()
    const thread = this.started()
    const answer = await new Promise<Answer>((resolve, reject) => {
      const timer = setTimeout(() => this.stop(), this.limits.ms)
      const giveUp = () => {
        settle(() => reject(signal?.reason))
        this.stop()
      }
      const settle = (work: () => void) => {
        clearTimeout(timer)
        thread.off('message', heard)
        thread.off('exit', failed)
        thread.off('error', failed)
        signal?.removeEventListener('abort', giveUp)
        this.idle = setTimeout(() => this.stop(), IDLE_MS)
        this.idle.unref()
        work()
      }
      const heard = (message: Message) => {
        if ('progress' in message) progress?.(message.progress)
        else settle(() => resolve(message))
      }
      const failed = () => settle(() => reject(new TooMuch()))
      thread.on('message', heard)
      thread.on('exit', failed)
      thread.on('error', failed)
      signal?.addEventListener('abort', giveUp)
      thread.postMessage({ name, args })
    })
    if (!answer.ok) throw errorOf(answer)
    return answer.value as Awaited<ReturnType<Tasks[Name]>>
  }

  private started(): Worker {
    clearTimeout(this.idle)
    if (this.worker) return this.worker
    const fresh = new Worker(join(projectRoot(), 'dist', 'server', 'heavy-worker.mjs'), {
      resourceLimits: { maxOldGenerationSizeMb: this.limits.mb },
    })
    fresh.on('exit', () => {
      if (this.worker === fresh) this.worker = null
    })
    this.worker = fresh
    return fresh
  }

  private stop(): void {
    this.ending = this.worker?.terminate() ?? null
    this.worker = null
  }
}

function errorOf(answer: Exclude<Answer, { ok: true }>): Error {
  if ('refusal' in answer) return new Refusal(answer.refusal)
  if ('status' in answer) return new Failure(answer.status, answer.message)
  // With its code, that of the database for one, it is known here for what it is.
  return Object.assign(new Error(answer.fault), { code: answer.code })
}
