import { isTooMuch } from '../text/commonmark'
import { shortName } from '../text/short-name'
import { takeAnchors } from './anchors'
import { readCommonMarkOutline } from './commonmark-outline'
import { readHtmlPage, withHtmlRead } from './html-in-page'
import { readIndentedText } from './indented-text'
import type { OutlineItem } from './outline'

/**
 * Reads pasted or imported text of either kind. Headings, or a paragraph among bullets, make it a CommonMark page;
 * anything else is taken line by line. Never fails; an empty text gives no items.
 */
export function readText(text: string): { items: OutlineItem[]; format: 'commonmark' | 'indented' } {
  return isPage(text)
    ? { items: readCommonMarkOutline(text), format: 'commonmark' }
    : { items: readIndentedText(text), format: 'indented' }
}

/**
 * Reads a document as a person has it in a file: as `readText` does, with the HTML in it read too, and with short names: what
 * is longer than a name stands in the note of its topic. A file whose name
 * ends in `.html` is HTML as a whole. `leftOut` names the elements of HTML that were left out.
 */
export function readDocument(source: string, path = ''): { items: OutlineItem[]; leftOut: string[] } {
  const isHtml = /\.x?html?$/i.test(path)
  const { text, leftOut, isMarked } = isHtml ? readHtmlPage(source) : withHtmlRead(source)
  const items =
    isHtml || isPage(text)
      ? readCommonMarkOutline(text, { hasShortNames: true, isMarked })
      : readIndentedText(isMarked ? takeAnchors(text).text : text)
  const waiting = [...items]
  for (let item = waiting.pop(); item; item = waiting.pop()) {
    const name = shortName(item.text)
    if (name) Object.assign(item, { text: name, note: item.note === '' ? item.text : `${item.text}\n\n${item.note}` })
    waiting.push(...item.children)
  }
  return { items, leftOut }
}

const isPage = (text: string): boolean => looksLikePage(text) && !isTooMuch(text)

function looksLikePage(text: string): boolean {
  const lines = text.split(/\r?\n/)
  const hasPageSigns = lines.some(
    (line, i) =>
      /^#{1,6}[ \t]+\S/.test(line) ||
      /^ {0,3}(```|~~~)/.test(line) ||
      (i > 0 && lines[i - 1] !== '' && /^(=+|-{3,})[ \t]*$/.test(line)),
  )
  if (hasPageSigns) return true
  // Paragraphs of wrapped lines between empty lines, beside bullets, are prose rather than a list.
  return (
    lines.some((line) => /^[ \t]*[-*+] /.test(line)) &&
    lines.some((line, i) => i > 1 && lines[i - 1] === '' && isParagraph(line))
  )
}

const isParagraph = (line: string): boolean => line.length > 60 && /^\S/.test(line) && !/^([-*+]|\d+[.)]) /.test(line)
