import { isTooMuch } from '../text/commonmark'
import { readCommonMarkOutline } from './commonmark-outline'
import { readIndentedText } from './indented-text'
import type { OutlineItem } from './outline'

/**
 * Reads pasted or imported text of either kind. Headings, or a paragraph among bullets, make it a CommonMark page;
 * anything else is taken line by line. Never fails; an empty text gives no items.
 */
export function readText(text: string): { items: OutlineItem[]; format: 'commonmark' | 'indented' } {
  return looksLikePage(text) && !isTooMuch(text)
    ? { items: readCommonMarkOutline(text), format: 'commonmark' }
    : { items: readIndentedText(text), format: 'indented' }
}

function looksLikePage(text: string): boolean {
  if (/^#{1,6}[ \t]+\S/m.test(text) || /^[^\n]+\n(=+|-{3,})[ \t]*$/m.test(text)) return true
  if (/^ {0,3}(```|~~~)/m.test(text)) return true
  // Paragraphs of wrapped lines between empty lines, beside bullets, are prose rather than a list.
  return /^[ \t]*[-*+] /m.test(text) && /\n\n(?![ \t]*([-*+]|\d+[.)]) )\S[^\n]{60,}/.test(text)
}
