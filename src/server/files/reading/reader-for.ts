import { fromHtml } from 'hast-util-from-html'
import { toText } from 'hast-util-to-text'
import { isBoundedHtml } from '../../../core/formats/bounded-html'
import { Failure } from '../../http/failure'
import { readDocx } from './docx-pages'
import { MOST_OF_PAGE, type Pages } from './pages'
import { readPdf } from './pdf-pages'

const DOCX = 'application/vnd.openxmlformats-officedocument.wordprocessingml.document'

/** How the text of a content is read: by its type, and of what the type does not tell by the ending of its name. Null where it has none. */
export function readerFor(type: string, name: string): ((bytes: Buffer, pages: Pages) => unknown) | null {
  const ending = name.split('.').at(-1)!.toLowerCase()
  if (type === 'application/pdf') return readPdf
  if (type === DOCX || (type === 'application/zip' && ending === 'docx')) return readDocx
  if (type === 'text/html' || (type === 'text/plain' && (ending === 'html' || ending === 'htm'))) return readHtml
  return type.startsWith('text/') ? readPlain : null
}

function readHtml(bytes: Buffer, pages: Pages): void {
  const html = bytes.toString('utf8')
  if (html.length > 5_000_000 || !isBoundedHtml(html)) throw new Failure(422, 'This page is too large to be read.')
  pages.add(toText(fromHtml(html)))
}

function readPlain(bytes: Buffer, pages: Pages): void {
  const text = bytes.toString('utf8')
  for (let from = 0; from < text.length && pages.isRoom; from += MOST_OF_PAGE)
    pages.add(text.slice(from, from + MOST_OF_PAGE))
}
