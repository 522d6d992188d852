import type { Page } from '../../core/commands/import-pages'
import { tell } from '../app/api'

const MAX_TEXT = 10 * 1024 * 1024

/** What can be read as pages, for choosing files. */
export const PAGE_TYPES = '.md,.markdown,.txt,text/plain,text/markdown'

/** Files of text as pages to be imported; null where one is too large, which is told. */
export async function readPages(files: readonly File[]): Promise<Page[] | null> {
  const tooLarge = files.find((file) => file.size > MAX_TEXT)
  if (tooLarge) {
    tell(`${tooLarge.name} is too large: a text to import may have up to 10 MB.`)
    return null
  }
  return Promise.all(
    files.map(async (file) => ({ path: file.name, text: (await file.text()).replaceAll('\u0000', '\ufffd') })),
  )
}
