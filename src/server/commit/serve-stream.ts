import { PassThrough } from 'node:stream'
import type { Member } from '../http/endpoint'
import type { Reply } from '../http/reply'
import { roleIn } from '../people/rights'
import { followChanges } from './change-stream'

const BEAT_MS = 20_000

/**
 * The changes after `since` and all that follow, as `text/event-stream`; the id of an event is the number of its last
 * change, so that a browser resumes where it was. Ends when the reader goes or loses the membership.
 */
export function changeStream(member: Member, since: number, gone: AbortSignal): Reply {
  const body = new PassThrough()
  const unfollow = followChanges(member.collection, since, (changes) => {
    body.write(`id: ${changes.at(-1)!.number}\nevent: changes\ndata: ${JSON.stringify(changes)}\n\n`)
  })
  const beat = setInterval(async () => {
    const role = await roleIn(member.person.id, member.collection).catch(() => member.role)
    if (role) body.write(': still here\n\n')
    else stop()
  }, BEAT_MS)
  const stop = () => {
    unfollow()
    clearInterval(beat)
    body.end()
  }
  gone.addEventListener('abort', stop)
  body.write('retry: 1000\n\n')
  return {
    status: 200,
    headers: { 'Content-Type': 'text/event-stream', 'Cache-Control': 'no-store', 'X-Accel-Buffering': 'no' },
    body,
  }
}
