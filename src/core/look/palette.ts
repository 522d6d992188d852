import type { Colour } from '../records/look'

/** Light or dark. */
export type Scheme = 'light' | 'dark'

/** A tone in light and in dark. */
export type Pair = readonly [light: Colour, dark: Colour]

export const inScheme = ([light, dark]: Pair, scheme: Scheme): Colour => (scheme === 'light' ? light : dark)

/** As a style sheet says it: which of the two holds follows `color-scheme`. */
export const asLightDark = ([light, dark]: Pair): string => (light === dark ? light : `light-dark(${light}, ${dark})`)

/** That of the two which holds; any other value as it is. */
export function fromLightDark(value: string | number, scheme: Scheme): string | number {
  const pair = /^light-dark\((#[0-9a-f]{6}), (#[0-9a-f]{6})\)$/.exec(String(value))
  return pair ? inScheme([pair[1]!, pair[2]!], scheme) : value
}

/** The tones of "paper and spruce". */
export const PALETTE = {
  paper: ['#fbfaf6', '#161b1e'],
  panel: ['#f3f1ea', '#1e2529'],
  raised: ['#ffffff', '#252d32'],
  line: ['#dcd8cc', '#38434a'],
  ink: ['#1d2a33', '#e8e6de'],
  'quiet-ink': ['#5d6a70', '#a3afb5'],
  spruce: ['#1f6f63', '#5fb8a8'],
  'on-spruce': ['#ffffff', '#0d1a18'],
  'spruce-wash': ['#e2efec', '#1f3a36'],
  ember: ['#c4532f', '#ee8a66'],
  'ember-text': ['#a8431f', '#f2a284'],
  'root-block': ['#1d2a33', '#e8e6de'],
  'on-root-block': ['#fbfaf6', '#161b1e'],
} as const satisfies Record<string, Pair>
export type PaletteTone = keyof typeof PALETTE

/** Emoji of the system where it has some; ours, in one colour, where it has none. */
const EMOJI_FONTS = '"Apple Color Emoji", "Segoe UI Emoji", "Noto Color Emoji", "Noto Emoji"'

/** The fonts that ship, as style sheets name them, with what follows where a sign is missing. */
export const FONT_FAMILIES = {
  interface: `"Source Sans 3", ${EMOJI_FONTS}, sans-serif`,
  reading: `"Literata", ${EMOJI_FONTS}, serif`,
  hand: `"Kalam", ${EMOJI_FONTS}, cursive`,
} as const
export type FontFamily = keyof typeof FONT_FAMILIES

/** Tones and fonts as variables of a style sheet: `--paper`, `--interface-font` and so on. */
export function paletteStyles(): string {
  const tones = Object.entries(PALETTE).map(([name, pair]) => `  --${name}: ${asLightDark(pair)};\n`)
  const fonts = Object.entries(FONT_FAMILIES).map(([name, families]) => `  --${name}-font: ${families};\n`)
  return `:root {\n${tones.join('')}${fonts.join('')}}\n`
}
