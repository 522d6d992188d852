import type { Nodes, Root } from 'mdast'
import { fromMarkdown } from 'mdast-util-from-markdown'
import { gfmFromMarkdown, gfmToMarkdown } from 'mdast-util-gfm'
import { toMarkdown } from 'mdast-util-to-markdown'
import { gfm } from 'micromark-extension-gfm'

/**
 * Parses CommonMark with the GFM extensions (tables, task lists, strikethrough) into an mdast tree with positions.
 * Every text is valid CommonMark: this never fails, but nesting is limited to keep it linear (see `tooDeep`).
 */
export const parseCommonMark = (text: string): Root =>
  fromMarkdown(text, { extensions: [gfm({ singleTilde: false })], mdastExtensions: [gfmFromMarkdown()] })

/** Writes a tree as CommonMark in one style: `-` for lists, `*` for emphasis, fenced code. Ends with a line break. */
export const writeCommonMark = (tree: Nodes): string =>
  toMarkdown(tree, {
    extensions: [gfmToMarkdown()],
    bullet: '-',
    emphasis: '*',
    rule: '-',
    listItemIndent: 'one',
    fences: true,
  })

const MAX_NESTING = 200

/** Whether the text is nested so deeply in quotes or lists that parsing it would be a burden: over 200 levels. */
export function tooDeep(text: string): boolean {
  for (const line of text.split('\n')) {
    const quotes = /^(?:\s{0,3}>\s?)+/.exec(line)?.[0] ?? ''
    if (quotes.split('>').length > MAX_NESTING) return true
    if (/^\s*(?:(?:[-*+]|\d+[.)])\s+){100,}/.test(line)) return true
  }
  return false
}
