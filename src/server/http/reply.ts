import type { ServerResponse } from 'node:http'
import type { Readable } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import { BUILD, BUILD_HEADER } from '../../core/build'

/** An answer before it is sent. A stream is taken from its source only as fast as the reader takes it. */
export interface Reply {
  status: number
  headers: Record<string, string>
  body: string | Buffer | Readable | null
}

export const json = (status: number, value: unknown, headers: Record<string, string> = {}): Reply => ({
  status,
  headers: {
    'Content-Type': 'application/json',
    'Cache-Control': 'no-store',
    ...(BUILD === '' ? {} : { [BUILD_HEADER]: BUILD }),
    ...headers,
  },
  body: JSON.stringify(value),
})

/** How long a reader may take nothing of an answer, in ms, before the connection is given up. */
const STALL_MS = 60_000

/** Sends an answer; resolves when it has been handed over, also where the reader has gone. */
export async function send({ status, headers, body }: Reply, outgoing: ServerResponse): Promise<void> {
  if (outgoing.destroyed) {
    if (body && typeof body === 'object' && 'destroy' in body) body.destroy()
    return
  }
  const isWhole = body === null || typeof body === 'string' || Buffer.isBuffer(body)
  const length = body === null || !isWhole ? 0 : Buffer.byteLength(body)
  outgoing.writeHead(status, isWhole && status !== 304 ? { ...headers, 'Content-Length': length } : headers)
  if (isWhole) outgoing.end(body ?? undefined)
  else if (outgoing.req.method === 'HEAD') {
    body.destroy()
    outgoing.end()
  } else {
    outgoing.setTimeout(STALL_MS, () => outgoing.destroy())
    // Whoever stops reading before the end is no fault of ours.
    await pipeline(body, outgoing).catch(() => outgoing.destroy())
  }
}
