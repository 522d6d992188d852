import type { Element, Root as HastRoot, Nodes } from 'hast'
import { defaultSchema, sanitize } from 'hast-util-sanitize'
import { toHtml } from 'hast-util-to-html'
import { toHast } from 'mdast-util-to-hast'
import { parseCommonMark, tooDeep } from '../core/text/commonmark'
import { Html, html } from './html'

/** Follows an address that is written in a note; undefined where it leads nowhere in the site. */
export type FollowAddress = (address: string) => string | undefined

/** A note as HTML. Raw HTML in it is shown as text; headings are set below those of the page; images become links. */
export function noteHtml(text: string, headingLevel: number, follow: FollowAddress): Html {
  if (tooDeep(text)) return html`<pre>${text}</pre>`
  const tree = toHast(parseCommonMark(text), { allowDangerousHtml: true }) as HastRoot
  const shown = visit(tree, headingLevel, follow) as HastRoot
  return new Html(
    toHtml(
      sanitize(shown, { ...defaultSchema, clobberPrefix: 'note-', protocols: { href: ['http', 'https', 'mailto'] } }),
    ),
  )
}

function visit(node: Nodes, headingLevel: number, follow: FollowAddress): Nodes {
  if (node.type === 'raw') return { type: 'text', value: node.value }
  if (node.type !== 'element' && node.type !== 'root') return node
  const children = node.children.map((child) => visit(child as Nodes, headingLevel, follow)) as Element['children']
  if (node.type === 'root') return { ...node, children }
  const heading = /^h([1-6])$/.exec(node.tagName)
  if (heading) return { ...node, tagName: `h${Math.min(6, Number(heading[1]) + headingLevel)}`, children }
  if (node.tagName === 'img') return picture(node)
  if (node.tagName !== 'a') return { ...node, children }
  const href = String(node.properties.href ?? '')
  const target = /^(https?:|mailto:)/i.test(href) ? href : href.startsWith('#') ? undefined : follow(href)
  return target === undefined
    ? { ...node, tagName: 'span', properties: {}, children }
    : { ...node, properties: { href: target }, children }
}

/** Pictures from elsewhere would be fetched by the page: they become links. */
function picture(node: Element): Element {
  const source = String(node.properties.src ?? '')
  const words = String(node.properties.alt ?? '') || source
  const text = { type: 'text' as const, value: words }
  return /^https?:/i.test(source)
    ? { type: 'element', tagName: 'a', properties: { href: source }, children: [text] }
    : { type: 'element', tagName: 'span', properties: {}, children: [text] }
}
