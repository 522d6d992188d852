import { Readable } from 'node:stream'
import type { ReadableStream as NodeReadableStream } from 'node:stream/web'

/** The body of a request, piece by piece. */
export const bytesOf = (request: Request): AsyncIterable<Uint8Array> =>
  request.body ? Readable.fromWeb(request.body as NodeReadableStream<Uint8Array>) : Readable.from([])

/** The body of a response that is made piece by piece, as the reader takes it. */
export const streamFrom = (pieces: AsyncIterable<Uint8Array> | Readable): ReadableStream<Uint8Array<ArrayBuffer>> =>
  Readable.toWeb(pieces instanceof Readable ? pieces : Readable.from(pieces)) as unknown as ReadableStream<
    Uint8Array<ArrayBuffer>
  >
