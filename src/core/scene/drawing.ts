/**
 * A picture as plain data: elements with SVG names. The stage turns it into React elements and the site into markup,
 * so both draw the same. Colours are class names: the theme of screen, paper or site decides.
 */
export interface Drawing {
  tag: 'g' | 'path' | 'rect' | 'text' | 'title' | 'image' | 'defs' | 'linearGradient' | 'stop'
  attributes: Readonly<Record<string, string | number>>
  children: readonly (Drawing | string)[]
}

export const drawing = (
  tag: Drawing['tag'],
  attributes: Drawing['attributes'],
  children: Drawing['children'] = [],
): Drawing => ({
  tag,
  attributes,
  children,
})

const escapeText = (text: string) => text.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('>', '&gt;')
const escapeAttribute = (text: string) => escapeText(text).replaceAll('"', '&quot;')

/** Writes a drawing as SVG markup, with every text escaped. */
export function toMarkup(node: Drawing | string): string {
  if (typeof node === 'string') return escapeText(node)
  let markup = `<${node.tag}`
  for (const [name, value] of Object.entries(node.attributes)) markup += ` ${name}="${escapeAttribute(String(value))}"`
  if (node.children.length === 0) return `${markup}/>`
  return `${markup}>${node.children.map(toMarkup).join('')}</${node.tag}>`
}

/** A length with at most two decimals: a hundredth of a pixel is enough, and the markup stays small. */
export const px = (length: number): number => Math.round(length * 100) / 100
