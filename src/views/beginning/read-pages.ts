import type { Page } from '../../core/formats/page-file'
import { MAX_FILE_BYTES } from '../../core/records/file'
import { tell } from '../app/api'

/** Largest text that is read as a page, largest zip, most that comes out of one, in bytes, and most files of one choice. */
const [MAX_TEXT, MAX_ZIP, MAX_UNZIPPED, MOST_FILES] = [10 * 2 ** 20, 100 * 2 ** 20, 200 * 2 ** 20, 2_000]

const PAGE = /\.(md|markdown|txt|html?|xhtml)$/i
/** What can be read as pages, and what holds such, for choosing files. */
export const PAGE_TYPES = '.md,.markdown,.txt,.html,.htm,.xhtml,text/plain,text/markdown,text/html'
export const CHOICE_TYPES = `${PAGE_TYPES},.zip,application/zip,image/*,.pdf,.csv`

/** A file with its path inside of what was chosen. */
interface Chosen {
  path: string
  file: File
}

/** Pages, and the other files that came with them. */
export interface ReadChoice {
  pages: Page[]
  files: Chosen[]
}

/** Files of text as pages to be imported; null where one is too large, which is told. */
export async function readPages(files: readonly File[]): Promise<Page[] | null> {
  return (await readChoice(files.map((file) => ({ path: file.name, file }))))?.pages ?? null
}

/** Files as they were chosen or dropped: with the folder in which they were, if any. */
export const asChosen = (files: readonly File[]): Chosen[] =>
  withoutCommonFolder(files.map((file) => ({ path: file.webkitRelativePath || file.name, file })))

/** Reads what was chosen: pages as text, what lies in a zip as if it had been chosen. Null where that cannot be, which is told. */
export async function readChoice(chosen: readonly Chosen[]): Promise<ReadChoice | null> {
  try {
    const all: Chosen[] = []
    for (const each of chosen) {
      if (/\.zip$/i.test(each.path)) all.push(...(await unzipped(each.file)))
      else all.push(each)
    }
    if (all.length > MOST_FILES) throw new Error(`That is more than ${MOST_FILES} files. Choose a smaller folder.`)
    const isHidden = ({ path }: Chosen) => path.split('/').some((part) => part.startsWith('.'))
    const shown = all.filter((each) => !isHidden(each))
    const pages = await Promise.all(shown.filter(({ path }) => PAGE.test(path)).map(readPage))
    return { pages, files: shown.filter(({ path, file }) => !PAGE.test(path) && file.size <= MAX_FILE_BYTES) }
  } catch (error) {
    tell(error instanceof Error ? error.message : 'This cannot be read.')
    return null
  }
}

async function readPage({ path, file }: Chosen): Promise<Page> {
  if (file.size > MAX_TEXT) throw new Error(`${path} is too large: a text to import may have up to 10 MB.`)
  return { path, text: (await file.text()).replaceAll('\u0000', '\ufffd') }
}

async function unzipped(zip: File): Promise<Chosen[]> {
  if (zip.size > MAX_ZIP) throw new Error(`${zip.name} is too large: a zip may have up to 100 MB.`)
  const { unzipSync } = await import('fflate')
  const zipBytes = await zip.arrayBuffer()
  let [bytes, count] = [0, 0]
  const entries = (() => {
    try {
      return unzipSync(new Uint8Array(zipBytes), {
        filter: ({ name, originalSize }) => {
          bytes += originalSize
          count++
          if (bytes > MAX_UNZIPPED || count > MOST_FILES) throw new TooMuch()
          return !name.endsWith('/')
        },
      })
    } catch (error) {
      if (error instanceof TooMuch) throw new Error(`${zip.name} holds more than can be brought in at once.`)
      throw new Error(`${zip.name} cannot be read as a zip.`)
    }
  })()
  return withoutCommonFolder(
    Object.entries(entries).map(([path, content]) => ({
      path,
      file: new File([new Uint8Array(content)], path.split('/').at(-1) ?? path),
    })),
  )
}
class TooMuch extends Error {}

/** Paths as they are seen from the folder in which everything lies. */
function withoutCommonFolder(chosen: Chosen[]): Chosen[] {
  const first = chosen[0]?.path ?? ''
  const folder = first.slice(0, first.indexOf('/') + 1)
  if (folder === '' || !chosen.every(({ path }) => path.startsWith(folder))) return chosen
  return chosen.map(({ path, file }) => ({ path: path.slice(folder.length), file }))
}
