import { type ChildProcess, fork } from 'node:child_process'
import { join } from 'node:path'
import { Failure } from '../http/failure'
import { projectRoot } from '../project-root'

/** Longest that one picture may take, and how much longer once nobody waits for it any more, in ms. */
const LIMIT_MS = 10_000
const UNWANTED_MS = 1_000
/** Most pictures that wait. */
const MOST_WAITING = 200
/** The process ends where it has had nothing to do for so long. */
const IDLE_MS = 30_000

interface Task {
  message: { task: 'size' | 'thumbnail'; bytes: Buffer; width?: number; density?: number }
  gone: AbortSignal | undefined
  resolve(value: unknown): void
  reject(error: unknown): void
}

export class CannotBeShown extends Failure {
  constructor() {
    super(422, 'This picture cannot be shown: it is damaged, or too large or too intricate to be drawn here.')
  }
}

const waiting: Task[] = []
let child: ChildProcess | null = null
let busy = false
let idle: ReturnType<typeof setTimeout> | undefined

/** Has something done with a picture, one at a time. Throws CannotBeShown where it fails or takes too long. */
export function askPictures(message: Task['message'], gone?: AbortSignal): Promise<unknown> {
  if (waiting.length >= MOST_WAITING)
    return Promise.reject(new Failure(503, 'Too many pictures are being made just now. Please try again.'))
  return new Promise((resolve, reject) => {
    waiting.push({ message, gone, resolve, reject })
    void next()
  })
}

async function next(): Promise<void> {
  if (busy) return
  const task = waiting.shift()
  if (!task) return
  busy = true
  clearTimeout(idle)
  try {
    if (task.gone?.aborted) throw new CannotBeShown()
    task.resolve(await run(task))
  } catch (error) {
    task.reject(error)
  } finally {
    busy = false
    idle = setTimeout(stop, IDLE_MS)
    idle.unref()
    void next()
  }
}

function started(): ChildProcess {
  if (child) return child
  const path = join(projectRoot(), 'src', 'server', 'files', 'picture-process.mjs')
  const fresh = fork(path, { serialization: 'advanced', execArgv: ['--max-old-space-size=256'] })
  fresh.on('exit', () => {
    if (child === fresh) child = null
  })
  // It must not keep a command alive that has nothing else to do.
  fresh.unref()
  fresh.channel?.unref()
  child = fresh
  return fresh
}

function stop(): void {
  child?.kill('SIGKILL')
  child = null
}

function run({ message, gone }: Task): Promise<unknown> {
  const worker = started()
  worker.channel?.ref()
  return new Promise<unknown>((resolve, reject) => {
    let timer = setTimeout(stop, LIMIT_MS)
    const unwanted = () => {
      clearTimeout(timer)
      timer = setTimeout(stop, UNWANTED_MS)
    }
    const settle = (work: () => void) => {
      clearTimeout(timer)
      worker.off('message', answered)
      worker.off('exit', failed)
      worker.off('error', failed)
      gone?.removeEventListener('abort', unwanted)
      worker.channel?.unref()
      work()
    }
    const answered = (told: unknown) => {
      const answer = told as { ok: boolean; value?: unknown }
      settle(() => (answer.ok ? resolve(answer.value) : reject(new CannotBeShown())))
    }
    const failed = () => settle(() => reject(new CannotBeShown()))
    worker.on('message', answered)
    worker.on('exit', failed)
    worker.on('error', failed)
    gone?.addEventListener('abort', unwanted)
    worker.send(message)
  })
}
