import type { PhrasingContent, RootContent } from 'mdast'
import { writeCommonMark } from './write-commonmark'

/** Where words come from, as a person reads it, and where it leads. */
export interface Origin {
  address: string
  name: string
}

/** The paragraphs of a text that was selected: lines that were broken by the width of a page are one. Linear. */
export const paragraphsOf = (text: string): string[] =>
  text
    .toWellFormed()
    .replaceAll('\u0000', '')
    .split(/\n[ \t]*\n/)
    .map((paragraph) => paragraph.split(/\s+/).filter(Boolean).join(' '))
    .filter((paragraph) => paragraph !== '')

/** Words of somebody else as CommonMark: a quotation, none where there are no paragraphs, and beneath it where they come from. */
export function quotation(paragraphs: readonly string[], origin: Origin | null): string {
  const children: RootContent[] = []
  if (paragraphs.length > 0)
    children.push({
      type: 'blockquote',
      children: paragraphs.map((value) => ({ type: 'paragraph', children: [{ type: 'text', value }] })),
    })
  if (origin) {
    const link: PhrasingContent = {
      type: 'link',
      url: origin.address,
      children: [{ type: 'text', value: origin.name }],
    }
    children.push({ type: 'paragraph', children: [link] })
  }
  return children.length === 0 ? '' : writeCommonMark({ type: 'root', children })
}
