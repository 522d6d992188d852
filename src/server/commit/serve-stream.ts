import type { Member } from '../http/endpoint'
import { roleIn } from '../people/rights'
import { followChanges } from './change-stream'

const BEAT_MS = 20_000

/**
 * The changes after `since` and all that follow, as `text/event-stream`; the id of an event is the number of its last
 * change, so that a browser resumes where it was. Ends when the reader goes or loses the membership.
 */
export function changeStream(member: Member, since: number, gone: AbortSignal): Response {
  const encoder = new TextEncoder()
  let stop = () => {}
  const body = new ReadableStream<Uint8Array<ArrayBuffer>>({
    start(controller) {
      const write = (text: string) => {
        try {
          controller.enqueue(encoder.encode(text))
        } catch {
          stop()
        }
      }
      const unfollow = followChanges(member.collection, since, (changes) => {
        write(`id: ${changes.at(-1)!.number}\nevent: changes\ndata: ${JSON.stringify(changes)}\n\n`)
      })
      const beat = setInterval(async () => {
        const role = await roleIn(member.person.id, member.collection).catch(() => member.role)
        if (role) write(': still here\n\n')
        else stop()
      }, BEAT_MS)
      stop = () => {
        stop = () => {}
        unfollow()
        clearInterval(beat)
        try {
          controller.close()
        } catch {
          // Already closed by the reader.
        }
      }
      gone.addEventListener('abort', () => stop())
      write(`retry: 1000\n\n`)
    },
    cancel: () => stop(),
  })
  return new Response(body, {
    headers: { 'Content-Type': 'text/event-stream', 'Cache-Control': 'no-store', 'X-Accel-Buffering': 'no' },
  })
}
