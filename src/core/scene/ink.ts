import { hueClasses, NO_HUE, type Tones } from '../look/families'
import { FONT_FAMILIES, fromLightDark, inScheme, PALETTE, type Pair, type Scheme } from '../look/palette'
import type { Drawing } from './drawing'
import { INK_RULES, type InkRule, type Tone } from './ink-rules'

/** The tones by their classes, computed when they are first asked for. */
let hues: ReadonlyMap<string, Tones> | null = null
const tonesOfClass = (name: string): Tones | undefined => (hues ??= new Map(hueClasses())).get(name)

interface Selector {
  within: string | null
  tag: string | null
  classes: readonly string[]
}

const RULES: readonly { selector: Selector; rule: InkRule }[] = INK_RULES.map(([text, rule]) => {
  const parts = text.split(' ')
  const [tag, ...classes] = parts.at(-1)!.split('.')
  return { selector: { within: parts.length > 1 ? parts[0]!.slice(1) : null, tag: tag || null, classes }, rule }
})

/**
 * What a style sheet would say of drawings, as values: for whoever draws without one, such as a canvas, or a picture that
 * leaves Folvet. Of `ink-rules.ts`, in light or in dark.
 */
export class Inks {
  private readonly known = new Map<string, Drawing['attributes']>()
  private readonly resolved = new WeakMap<Drawing, Drawing>()

  constructor(readonly scheme: Scheme) {}

  /**
   * A drawing with all tones, lines and fonts as attributes and without classes. What a person picked stays. Linear in
   * its elements the first time; kept after that.
   */
  resolve(drawing: Drawing): Drawing {
    let resolved = this.resolved.get(drawing)
    if (!resolved) this.resolved.set(drawing, (resolved = this.resolveInside(drawing, '')))
    return resolved
  }

  /** The attributes of an element with this tag and these classes; `around` are the classes of what it stands in. */
  of(tag: Drawing['tag'], name: string, around = ''): Drawing['attributes'] {
    const key = `${around}|${tag}|${name}`
    let attributes = this.known.get(key)
    if (!attributes) this.known.set(key, (attributes = this.read(tag, name.split(' '), around.split(' '))))
    return attributes
  }

  private resolveInside({ tag, attributes, children }: Drawing, around: string): Drawing {
    const { class: name = '', ...others } = attributes
    const inside = tag === 'g' ? `${around} ${name}`.trim() : around
    const isDrawn = tag === 'rect' || tag === 'path' || tag === 'text'
    return {
      tag,
      attributes: isDrawn ? { ...this.of(tag, String(name), around), ...this.inScheme(others) } : others,
      children: children.map((child) => (typeof child === 'string' ? child : this.resolveInside(child, inside))),
    }
  }

  /** What a person picked, as it is in light or in dark. */
  private inScheme({ fill, ...others }: Drawing['attributes']): Drawing['attributes'] {
    return fill === undefined ? others : { ...others, fill: fromLightDark(fill, this.scheme) }
  }

  private read(tag: string, classes: readonly string[], around: readonly string[]): Drawing['attributes'] {
    const ink: InkRule = {}
    for (const { selector, rule } of RULES)
      if (
        (selector.tag === null || selector.tag === tag) &&
        (selector.within === null || around.includes(selector.within)) &&
        selector.classes.every((name) => classes.includes(name))
      )
        Object.assign(ink, rule)
    const hue = [...around, ...classes].reduce<Tones | null>((found, name) => tonesOfClass(name) ?? found, null)
    const tone = (of: Tone) => this.tone(of, hue)
    return {
      ...(ink.fill ? { fill: tone(ink.fill) } : {}),
      ...(ink.fillOpacity ? { 'fill-opacity': ink.fillOpacity } : {}),
      ...(ink.stroke ? { stroke: tone(ink.stroke) } : {}),
      ...(ink.width ? { 'stroke-width': ink.width } : {}),
      ...(ink.dashes ? { 'stroke-dasharray': ink.dashes.join(' ') } : {}),
      ...(ink.round ? { 'stroke-linecap': 'round', 'stroke-linejoin': 'round' } : {}),
      ...(ink.strokeBehind ? { 'paint-order': 'stroke' } : {}),
      ...(ink.font ? { 'font-family': FONT_FAMILIES[ink.font] } : {}),
      ...(ink.size ? { 'font-size': ink.size } : {}),
      ...(ink.weight ? { 'font-weight': ink.weight } : {}),
      ...(ink.italic ? { 'font-style': 'italic' } : {}),
    }
  }

  private tone(tone: Tone, hue: Tones | null): string {
    if (typeof tone !== 'string') return this.tone(hue ? tone[0] : tone[1], hue)
    if (tone === 'none' || tone === 'transparent') return tone
    const { line, text, wash } = hue ?? tonesOfClass(NO_HUE)!
    const ofHue = { hue: line, 'hue-text': text, 'hue-wash': wash }
    const pair: Pair = { ...PALETTE, ...ofHue }[tone]
    return inScheme(pair, this.scheme)
  }
}
