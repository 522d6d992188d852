import { createElement, memo, type ReactNode } from 'react'
import { type Drawing, toMarkup } from '../../core/scene/drawing'

/**
 * A drawing of core in the page: the same markup that the site has, with every text escaped. As markup rather than as
 * elements, because a map has tens of thousands of parts that nothing but a whole new drawing ever changes.
 */
export const Drawn = memo(({ drawing }: { drawing: Drawing | readonly Drawing[] }) => (
  // biome-ignore lint/security/noDangerouslySetInnerHtml: toMarkup escapes whatever is no markup of our own.
  <g role="none" dangerouslySetInnerHTML={{ __html: [drawing].flat().map(toMarkup).join('') }} />
))
Drawn.displayName = 'Drawn'

/** A drawing of few parts as elements, of which only what is other than before is changed in the page: lines that move. */
export const DrawnParts = memo(({ drawing }: { drawing: Drawing }) => elementOf(drawing, 0))
DrawnParts.displayName = 'DrawnParts'

function elementOf(part: Drawing | string, key: number): ReactNode {
  if (typeof part === 'string') return part
  const { class: className, ...attributes } = part.attributes
  const role = part.tag === 'g' ? 'none' : undefined
  return createElement(part.tag, { ...attributes, className, role, key }, ...part.children.map(elementOf))
}
