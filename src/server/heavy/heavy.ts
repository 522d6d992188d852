import pLimit from 'p-limit'
import { Failure } from '../http/failure'
import type { Tasks } from './tasks'
import { Thread } from './thread'

/** Tasks that wait for their turn. */
const MOST_WAITING = 40

const turns = pLimit(1)
const thread = new Thread<Tasks>({ ms: 120_000, mb: 768 })

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
  return turns(() => thread.run(name, args))
}
