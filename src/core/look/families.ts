import type { Colour, HueFamily } from '../records/look'
import { contrast, fromHsl, LEAST_CONTRAST } from './contrast'
import { asLightDark, PALETTE, type Pair } from './palette'

/** A hue in its three tones, each in light and in dark. */
export interface Tones {
  line: Pair
  text: Pair
  wash: Pair
}

export const FAMILY_NAMES: Record<HueFamily, string> = {
  spruce: 'Spruce',
  heather: 'Heather',
  sedge: 'Sedge',
  peat: 'Peat',
  rain: 'Rain',
  ink: 'Ink',
}

/** Our own eight, set by hand, told apart by people with colour-blindness. */
const SPRUCE: readonly Tones[] = [
  { line: ['#2f7fa8', '#62aad0'], text: ['#1f5d7e', '#93c8e4'], wash: ['#e3eff5', '#1b313d'] },
  { line: ['#b5653a', '#d48a61'], text: ['#87451f', '#e8b394'], wash: ['#f6e9e0', '#3a281d'] },
  { line: ['#6b8a2a', '#9bb85c'], text: ['#4a6316', '#c0d58d'], wash: ['#eef2df', '#2a3219'] },
  { line: ['#8a5fa3', '#b48fca'], text: ['#673f82', '#d2b8e2'], wash: ['#f0e8f4', '#33273a'] },
  { line: ['#b8901f', '#d6b34f'], text: ['#765a08', '#e6cf8b'], wash: ['#f6efd8', '#362e15'] },
  { line: ['#2d8f86', '#58bdb3'], text: ['#1b655e', '#93d8d0'], wash: ['#e0f1ee', '#173532'] },
  { line: ['#b0476b', '#d97f9e'], text: ['#87304e', '#ebb0c4'], wash: ['#f7e6ec', '#3d222c'] },
  { line: ['#5f7480', '#8fa5b1'], text: ['#43545e', '#bccad2'], wash: ['#e8edef', '#263238'] },
]

/** Hue in degrees, saturation, and lightness of the line in light: the rest follows. */
type Base = readonly [hue: number, saturation: number, lightness: number]

const BASES: Record<Exclude<HueFamily, 'spruce'>, readonly Base[]> = {
  heather: [
    [312, 0.38, 0.46],
    [268, 0.34, 0.52],
    [338, 0.46, 0.44],
    [232, 0.32, 0.54],
    [356, 0.36, 0.54],
    [288, 0.22, 0.38],
    [212, 0.26, 0.46],
    [324, 0.14, 0.5],
  ],
  sedge: [
    [82, 0.5, 0.33],
    [152, 0.4, 0.36],
    [52, 0.56, 0.4],
    [176, 0.42, 0.32],
    [104, 0.3, 0.42],
    [34, 0.5, 0.42],
    [130, 0.24, 0.3],
    [68, 0.2, 0.44],
  ],
  peat: [
    [22, 0.48, 0.36],
    [40, 0.52, 0.4],
    [8, 0.4, 0.44],
    [30, 0.2, 0.3],
    [48, 0.34, 0.36],
    [354, 0.3, 0.36],
    [26, 0.36, 0.5],
    [20, 0.1, 0.48],
  ],
  rain: [
    [204, 0.5, 0.38],
    [224, 0.4, 0.5],
    [186, 0.46, 0.34],
    [246, 0.28, 0.54],
    [198, 0.24, 0.46],
    [168, 0.3, 0.36],
    [214, 0.3, 0.34],
    [210, 0.1, 0.48],
  ],
  ink: [
    [210, 0.12, 0.22],
    [210, 0.06, 0.46],
    [210, 0.12, 0.32],
    [210, 0.05, 0.52],
    [210, 0.1, 0.27],
    [210, 0.05, 0.42],
    [210, 0.1, 0.37],
    [210, 0.04, 0.49],
  ],
}

/** The lightness nearest to `from`, in steps of a hundredth towards `to`, at which the contrast with `behind` suffices. */
function readable(hue: number, saturation: number, from: number, to: 0 | 1, behind: Colour, least: number): Colour {
  const step = to === 0 ? -0.01 : 0.01
  for (let lightness = from; lightness > 0 && lightness < 1; lightness += step) {
    const colour = fromHsl(hue, saturation, lightness)
    if (contrast(colour, behind) >= least) return colour
  }
  return fromHsl(hue, saturation, to)
}

function tonesFrom([hue, saturation, lightness]: Base): Tones {
  const light = fromHsl(hue, saturation * 0.7, 0.93)
  const dark = fromHsl(hue, saturation * 0.6, 0.17)
  return {
    line: [
      readable(hue, saturation, lightness, 0, PALETTE.paper[0], 3),
      readable(hue, saturation * 0.8, lightness + 0.2, 1, PALETTE.paper[1], 3),
    ],
    text: [
      readable(hue, saturation, lightness - 0.12, 0, light, LEAST_CONTRAST),
      readable(hue, saturation * 0.8, 0.72, 1, dark, LEAST_CONTRAST),
    ],
    wash: [light, dark],
  }
}

/** The eight hues of a family. Text on wash has a contrast of 4.5 at least, lines on paper one of 3. */
export const tonesOf = (family: HueFamily): readonly Tones[] =>
  family === 'spruce' ? SPRUCE : BASES[family].map(tonesFrom)

/** The class of topics without a hue: roots and heads of loose branches. */
export const NO_HUE = 'root-tone'

/** The class that gives a drawing the tones of a hue; empty for topics that have none, such as the root. */
export const toneClass = (family: HueFamily, hue: number): string => (hue < 0 ? '' : `${family}-${hue}`)

/** The tones that each class gives to what is drawn inside of it. */
export const hueClasses = (): [string, Tones][] => [
  [NO_HUE, { line: PALETTE.ink, text: PALETTE.ink, wash: PALETTE.panel }],
  ...(Object.keys(FAMILY_NAMES) as HueFamily[]).flatMap((family) =>
    tonesOf(family).map((tones, hue): [string, Tones] => [`${family}-${hue}`, tones]),
  ),
]

/** These classes as a style sheet. */
export function familyStyles(): string {
  let css = ''
  const write = (name: string, { line, text, wash }: Tones) => {
    const [hue, inked, washed] = [line, text, wash].map(asLightDark)
    css += `.${name} {\n  --hue: ${hue};\n  --hue-text: ${inked};\n  --hue-wash: ${washed};\n}\n`
  }
  for (const [name, tones] of hueClasses()) write(name, tones)
  return css
}
