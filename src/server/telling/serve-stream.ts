import { Readable } from 'node:stream'
import type { Asked } from '../http/asked'
import type { Member } from '../http/endpoint'
import type { Reply } from '../http/reply'
import { sessionOf } from '../people/sessions'
import { listen } from './rooms'

const BEAT_MS = 15_000
/** Most bytes that wait for a slow reader. Beyond, nothing more is kept for them, and they ask for everything anew. */
const MOST_WAITING = 1_000_000
const LOOK_MS = 100

/** What is told to one reader: as fast as they take it, and no more than a bounded part of it waiting. */
export class Outlet extends Readable {
  /** Looks whether a reader who fell behind has taken everything that waited; null while they keep up. */
  private behind: ReturnType<typeof setInterval> | null = null
  private last = 0

  override _read(): void {
    // What is told comes when it happens.
  }

  override _destroy(error: Error | null, done: (error: Error | null) => void): void {
    if (this.behind) clearInterval(this.behind)
    done(error)
  }

  event(kind: string, data: string, number: number): void {
    if (this.destroyed) return
    this.last = Math.max(this.last, number)
    if (this.behind) return
    if (this.readableLength > 0 && this.readableLength + data.length > MOST_WAITING)
      this.behind = setInterval(() => this.catchUp(), LOOK_MS)
    else this.push(`id: ${number}\nevent: ${kind}\ndata: ${data}\n\n`)
  }

  private catchUp(): void {
    if (this.readableLength > 0 || !this.behind) return
    clearInterval(this.behind)
    this.behind = null
    this.resync(this.last)
  }

  resync(number: number): void {
    this.event('resync', String(number), number)
  }

  beat(): void {
    if (!this.destroyed && !this.behind) this.push(': still here\n\n')
  }
}

/**
 * The changes after `since` and all that follow, as `text/event-stream`: `changes`, with their edits where they are seen on
 * one of `maps`; `maps`, digest rows that were altered; `jobs`, what is being done; `resync`, where it is too much. The id of an event is the number of
 * its last change, so that a browser resumes where it was. Ends when the reader goes or may not listen any more.
 */
export function changeStream(
  asked: Asked,
  member: Member,
  since: { changes: number; rows: number },
  maps: ReadonlySet<string>,
): Reply {
  const outlet = new Outlet({ highWaterMark: MOST_WAITING })
  const stop = listen({
    collection: member.collection,
    person: member.person.id,
    session: sessionOf(asked.header('cookie')) ?? Buffer.alloc(0),
    maps,
    reach: null,
    seen: since.changes,
    rowsSeen: since.rows,
    tell: (changes, number) => outlet.event('changes', `[${changes.join(',')}]`, number),
    tellRows: (rows, number) => outlet.event('maps', JSON.stringify(rows), number),
    tellJobs: (jobs, number) => outlet.event('jobs', JSON.stringify(jobs), number),
    resync: (number) => outlet.resync(number),
    end: () => outlet.push(null),
  })
  const beat = setInterval(() => outlet.beat(), BEAT_MS)
  outlet.on('close', () => {
    clearInterval(beat)
    stop()
  })
  asked.gone.addEventListener('abort', () => outlet.destroy())
  outlet.push('retry: 1000\n\n')
  return {
    status: 200,
    headers: { 'Content-Type': 'text/event-stream', 'Cache-Control': 'no-store', 'X-Accel-Buffering': 'no' },
    body: outlet,
  }
}
