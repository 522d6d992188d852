import { parentPort } from 'node:worker_threads'
import { Refusal } from '../../core/changes/problem'
import { Failure } from '../http/failure'
import { tasks } from './tasks'
import type { Answer, Message } from './thread'

/** The thread in which long computations run: see `thread.ts`. */
async function answer({ name, args }: { name: keyof typeof tasks; args: unknown[] }): Promise<Answer> {
  try {
    const task = tasks[name] as (...given: unknown[]) => Promise<unknown>
    return { ok: true, value: await task(...args) }
  } catch (error) {
    if (error instanceof Refusal) return { ok: false, refusal: error.problem }
    if (error instanceof Failure) return { ok: false, status: error.status, message: error.message }
    if (!(error instanceof Error)) return { ok: false, fault: String(error) }
    return { ok: false, fault: error.stack ?? error.message, code: 'code' in error ? String(error.code) : undefined }
  }
}

const tell = (message: Message) => parentPort?.postMessage(message)

parentPort?.on('message', (asked) => {
  void answer(asked).then(tell)
})
