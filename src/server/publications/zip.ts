import type { Readable } from 'node:stream'
import yazl from 'yazl'
import { type Publication, pagePaths } from './publication-rows'
import { bytesOfPage } from './serve-site'

/** The same time in every archive, so that the same site gives the same bytes. */
const TIME = new Date(Date.UTC(2020, 0, 1))

/** The published site as a zip, in a folder of its own, streamed as it is packed. */
export function zipSite(publication: Publication): Readable {
  const zip = new yazl.ZipFile()
  const pack = async () => {
    for (const path of await pagePaths(publication.collection))
      zip.addBuffer(await bytesOfPage(publication.address, path), `${publication.address}/${path}`, {
        mtime: TIME,
        mode: 0o644,
      })
    zip.end()
  }
  pack().catch((error: Error) => zip.emit('error', error))
  return zip.outputStream as Readable
}
