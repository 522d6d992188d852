import { escapeMarkup } from '../text/escape-markup'

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

/** Writes a drawing as SVG markup, with every text escaped. */
export function toMarkup(node: Drawing | string): string {
  if (typeof node === 'string') return escapeMarkup(node)
  const { tag, attributes, children } = node
  let markup = `<${tag}`
  for (const name in attributes) {
    const value = attributes[name]!
    markup += ` ${name}="${typeof value === 'number' ? value : escapeMarkup(value)}"`
  }
  if (children.length === 0) return `${markup}/>`
  markup += '>'
  for (const child of children) markup += toMarkup(child)
  return `${markup}</${tag}>`
}

/** A length with at most two decimals: a hundredth of a pixel is enough, and the markup stays small. */
export const px = (length: number): number => Math.round(length * 100) / 100
