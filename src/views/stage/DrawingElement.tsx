import { createElement, memo, type ReactNode } from 'react'
import type { Drawing } from '../../core/scene/drawing'

const REACT_NAMES: Record<string, string> = {
  class: 'className',
  'text-anchor': 'textAnchor',
  'font-size': 'fontSize',
  'stroke-width': 'strokeWidth',
  'stop-color': 'stopColor',
}

function elementOf(drawing: Drawing | string, key: number): ReactNode {
  if (typeof drawing === 'string') return drawing
  const properties: Record<string, string | number> = { key }
  for (const [name, value] of Object.entries(drawing.attributes)) properties[REACT_NAMES[name] ?? name] = value
  return createElement(drawing.tag, properties, ...drawing.children.map(elementOf))
}

/** A drawing of core as React elements: the same picture that the site writes as markup. */
export const DrawingElement = memo(({ drawing }: { drawing: Drawing }) => elementOf(drawing, 0))
DrawingElement.displayName = 'DrawingElement'
