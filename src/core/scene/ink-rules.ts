import type { FontFamily, PaletteTone } from '../look/palette'

/** Of the hue of the branch, where there is one around: its line, text and wash. */
type HueTone = 'hue' | 'hue-text' | 'hue-wash'
/** What is filled or drawn with; of a pair the second holds where there is no hue around. */
export type Tone = 'none' | 'transparent' | PaletteTone | HueTone | readonly [HueTone, PaletteTone]

/** How an element is drawn, as far as a rule says it. Lengths in px. */
export interface InkRule {
  fill?: Tone
  fillOpacity?: number
  stroke?: Tone
  width?: number
  dashes?: readonly number[]
  /** Whether ends and corners of lines are round. */
  round?: true
  /** Whether the stroke lies behind the fill. */
  strokeBehind?: true
  font?: FontFamily
  size?: number
  weight?: number
  italic?: true
}

/**
 * How maps are drawn: the one place that says it, for the stage, its canvas, the published site and pictures alike. A rule
 * holds for elements with a tag or classes, like `text.excerpt`, or inside of others, like `.tag rect`; later rules go
 * before earlier ones, and tones that a person picked, which stand as attributes, before all of them.
 */
export const INK_RULES: readonly (readonly [selector: string, rule: InkRule])[] = [
  ['text', { fill: 'ink', font: 'interface' }],
  ['.topic-text.font-reading', { font: 'reading' }],
  ['.topic-text.font-hand', { font: 'hand' }],
  ['.topic-text.bold', { weight: 600 }],
  ['.topic-text.font-hand.bold', { weight: 700 }],
  ['.topic-text.italic', { italic: true }],
  ['.excerpt', { fill: 'quiet-ink', size: 13 }],
  ['.ground', { fill: 'none' }],
  ['.ground-slab', { fill: 'root-block' }],
  ['.ground-block', { fill: 'hue-text' }],
  ['.ground-card', { fill: 'hue-wash', stroke: 'hue', width: 1.3 }],
  ['.ground-pill', { fill: 'hue-wash', stroke: 'hue', width: 1.3 }],
  ['.ground-sketch', { fill: 'hue-wash', stroke: 'hue', width: 1.3 }],
  ['.ground-frame', { stroke: 'hue', width: 1.3 }],
  ['.ground-gathered', { stroke: 'hue', width: 1.2, dashes: [3, 3] }],
  ['.bar', { fill: 'hue' }],
  ['.connector', { fill: 'none', stroke: 'hue', width: 1.5 }],
  ['.taper-0', { width: 4 }],
  ['.taper-1', { width: 2.6 }],
  ['.taper-2', { width: 1.8 }],
  ['.taper-3', { width: 1.2 }],
  ['.connector.to-gathered', { width: 1.2, dashes: [3, 3] }],
  ['.root-spine', { stroke: 'quiet-ink' }],
  ['.leaf', { fill: 'hue-wash', stroke: 'hue', width: 1 }],
  ['.fold', { fill: 'hue' }],
  ['.behind', { fill: 'hue-text', size: 12, weight: 600 }],
  ['.sign-reach', { fill: 'transparent' }],
  ['.sign-outline', { fill: 'none', stroke: 'quiet-ink', width: 1.16, round: true }],
  ['.sign-count', { fill: 'quiet-ink', size: 11 }],
  ['.badge-outline', { fill: 'none', stroke: 'hue-text', width: 1.5, round: true }],
  ['.badge-emoji', { size: 15 }],
  // What is written on a block or slab.
  ['text.on-slab', { fill: 'on-root-block' }],
  ['text.on-block', { fill: 'paper' }],
  ['path.on-slab', { stroke: 'on-root-block' }],
  ['path.on-block', { stroke: 'paper' }],
  ['.on-slab .sign-outline', { stroke: 'on-root-block' }],
  ['.on-block .sign-outline', { stroke: 'paper' }],
  ['.late .sign-outline', { stroke: 'ember' }],
  ['.on-slab .sign-count', { fill: 'on-root-block' }],
  ['.on-block .sign-count', { fill: 'paper' }],
  ['.tag rect', { fill: ['hue-wash', 'panel'], stroke: ['hue', 'line'], width: 0.8 }],
  ['.tag text', { fill: ['hue-text', 'quiet-ink'], size: 12 }],
  ['.picture-missing', { fill: 'panel', stroke: 'line' }],
  ['.fold-sign rect', { fill: 'hue-wash', stroke: 'hue' }],
  ['.fold-sign text', { fill: 'hue-text', size: 12 }],
  ['.crosslink-line', { fill: 'none', stroke: 'quiet-ink', width: 1.5, dashes: [5, 4] }],
  ['.crosslink-head', { fill: 'none', stroke: 'quiet-ink', width: 1.5 }],
  ['.crosslink-reach', { fill: 'none', stroke: 'transparent', width: 12 }],
  ['.crosslink-label', { fill: 'quiet-ink', stroke: 'paper', width: 4, strokeBehind: true, size: 12 }],
  ['.axis-date', { fill: 'quiet-ink', size: 12 }],
  ['.axis-scale', { fill: 'quiet-ink', size: 11 }],
  ['.axis-mark', { fill: 'none', stroke: 'quiet-ink', width: 1 }],
  ['.axis-today', { fill: 'none', stroke: 'ember', width: 1.6 }],
  ['.axis-today-word', { fill: 'ember-text', size: 11, weight: 600 }],
  ['.enclosure-frame', { fill: ['hue-wash', 'panel'], fillOpacity: 0.45, stroke: ['hue', 'quiet-ink'], width: 1.2 }],
  // A tone that was picked lies over the paper so thinly that ink on it can be read, whatever the tone.
  ['.enclosure-frame.picked', { fillOpacity: 0.22 }],
  ['.frame-strong', { width: 2.6 }],
  ['.frame-dashed', { dashes: [6, 5] }],
  ['.frame-none', { stroke: 'none' }],
  ['.enclosure-title', { fill: ['hue-text', 'quiet-ink'], size: 13, weight: 600 }],
  ['.enclosure-title.on-picked', { fill: 'ink' }],
]

/** A tone as a style sheet names it. */
const toneInCss = (tone: Tone): string => {
  if (tone === 'none' || tone === 'transparent') return tone
  if (typeof tone !== 'string') return `var(--${tone[0]}, var(--${tone[1]}))`
  return `var(--${tone})`
}

/** The rules as a style sheet. All have the same weight, so that their order decides, and attributes go before them. */
export function inkStyles(): string {
  let css = ''
  const write = (selector: string, unless: string, lines: readonly string[]) => {
    if (lines.length === 0) return
    const but = unless === '' ? '' : `:not([${unless}])`
    css += `.scene :where(${selector}${but}) {\n${lines.map((line) => `  ${line};\n`).join('')}}\n`
  }
  for (const [selector, rule] of INK_RULES) {
    write(selector, 'fill', rule.fill === undefined ? [] : [`fill: ${toneInCss(rule.fill)}`])
    write(selector, 'stroke', rule.stroke === undefined ? [] : [`stroke: ${toneInCss(rule.stroke)}`])
    write(selector, 'stroke-width', rule.width === undefined ? [] : [`stroke-width: ${rule.width}`])
    write(selector, '', [
      ...(rule.fillOpacity === undefined ? [] : [`fill-opacity: ${rule.fillOpacity}`]),
      ...(rule.dashes ? [`stroke-dasharray: ${rule.dashes.join(' ')}`] : []),
      ...(rule.round ? ['stroke-linecap: round', 'stroke-linejoin: round'] : []),
      ...(rule.strokeBehind ? ['paint-order: stroke'] : []),
      ...(rule.font ? [`font-family: var(--${rule.font}-font)`] : []),
      ...(rule.size === undefined ? [] : [`font-size: ${rule.size}px`]),
      ...(rule.weight === undefined ? [] : [`font-weight: ${rule.weight}`]),
      ...(rule.italic ? ['font-style: italic'] : []),
    ])
  }
  return css
}
