import { memo } from 'react'
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
