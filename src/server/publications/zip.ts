import { Readable } from 'node:stream'
import yazl from 'yazl'
import { type Publication, pagePaths } from './publication-rows'
import { bytesOfPage } from './serve-site'

/** The same time in every archive, so that the same site gives the same bytes. */
const TIME = new Date(Date.UTC(2020, 0, 1))

/** The published site as a zip, in a folder of its own, streamed as it is packed. */
export function zipSite(publication: Publication): Readable {
  const zip = new yazl.ZipFile()
  const pack = async () => {
    // Read when its turn comes: however slow the reader, one page at a time is held.
    for (const path of await pagePaths(publication.collection))
      zip.addReadStreamLazy(`${publication.address}/${path}`, { mtime: TIME, mode: 0o644 }, (ready) => {
        bytesOfPage(publication.address, path).then(
          (bytes) => ready(null, Readable.from([bytes])),
          (error: Error) => ready(error, Readable.from([])),
        )
      })
    zip.end()
  }
  pack().catch((error: Error) => zip.emit('error', error))
  return zip.outputStream as Readable
}
