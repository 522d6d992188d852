import type { Colour } from '../records/look'

/** Least contrast between a text and what is behind it: level AA of WCAG 2.2. */
export const LEAST_CONTRAST = 4.5

type Channels = readonly [number, number, number]

/** Red, green and blue of a #rrggbb colour, 0 to 255. */
const channels = (colour: string): Channels => [
  Number.parseInt(colour.slice(1, 3), 16),
  Number.parseInt(colour.slice(3, 5), 16),
  Number.parseInt(colour.slice(5, 7), 16),
]

const hex = (parts: readonly number[]): Colour =>
  `#${parts
    .map((part) =>
      Math.round(Math.min(255, Math.max(0, part)))
        .toString(16)
        .padStart(2, '0'),
    )
    .join('')}`

/** Relative luminance of a colour, 0 (black) to 1 (white), as in WCAG 2.2. */
function luminance(colour: string): number {
  const [r, g, b] = channels(colour).map((part) => {
    const c = part / 255
    return c <= 0.04045 ? c / 12.92 : ((c + 0.055) / 1.055) ** 2.4
  }) as [number, number, number]
  return 0.2126 * r + 0.7152 * g + 0.0722 * b
}

/** Contrast ratio between two #rrggbb colours, 1 to 21, as in WCAG 2.2. */
export function contrast(a: string, b: string): number {
  const [light, dark] = [luminance(a), luminance(b)].sort((x, y) => y - x) as [number, number]
  return (light + 0.05) / (dark + 0.05)
}

/** The colour at `part` (0 to 1) of the way from one to another, in sRGB. */
function mixed(from: string, to: string, part: number): Colour {
  const end = channels(to)
  return hex(channels(from).map((channel, i) => channel + (end[i]! - channel) * part))
}

/** A colour from hue in degrees, saturation and lightness from 0 to 1, as in CSS Color 4. */
export function fromHsl(hue: number, saturation: number, lightness: number): Colour {
  const reach = saturation * Math.min(lightness, 1 - lightness)
  const channel = (n: number) => {
    const k = (n + hue / 30) % 12
    return 255 * (lightness - reach * Math.max(-1, Math.min(k - 3, 9 - k, 1)))
  }
  return hex([channel(0), channel(8), channel(4)])
}

/** Inks in the order in which they are tried: ours first, then those that read on nearly anything. */
const INKS = ['#1d2a33', '#fbfaf6', '#000000', '#ffffff'] as const

/** A colour brought towards an ink that reads on all these grounds, as little as is needed to be read on them too. */
export function readableLetters(colour: Colour, ink: Colour, grounds: readonly Colour[]): Colour {
  for (let part = 0; part < 1; part += 0.05) {
    const tried = mixed(colour, ink, part)
    if (grounds.every((ground) => contrast(tried, ground) >= LEAST_CONTRAST)) return tried
  }
  return ink
}

/** A fill that text can be read on, with the ink for that text. */
export interface ReadableFill {
  fill: Colour
  end: Colour | null
  ink: Colour
}

/** The tones between which a fill passes, with that in its middle. */
export const tonesOfFill = (fill: Colour, end: Colour | null): Colour[] =>
  end ? [fill, mixed(fill, end, 0.5), end] : [fill]

/**
 * The ink that can be read on a fill of one tone or of two that pass into one another. Where no ink reads on both, the
 * second tone is brought nearer to the first, as little as is needed.
 */
export function readableFill(fill: Colour, end: Colour | null): ReadableFill {
  for (let part = 1; ; part -= 0.05) {
    const last = end && mixed(fill, end, Math.max(0, part))
    const least = (ink: string) => Math.min(...tonesOfFill(fill, last).map((tone) => contrast(ink, tone)))
    const ink = INKS.find((candidate) => least(candidate) >= LEAST_CONTRAST)
    if (ink) return { fill, end: last, ink }
    if (part <= 0) return { fill, end: last, ink: least('#000000') > least('#ffffff') ? '#000000' : '#ffffff' }
  }
}
