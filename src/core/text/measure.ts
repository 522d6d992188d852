/** A cut of a shipped font. */
export type FaceName = `${'plain' | 'reading'}${'' | '-bold'}${'' | '-italic'}` | `hand${'' | '-bold'}`

/** A line of wrapped text. `exact` is false where a letter is not in the shipped fonts and its width is what is usual for it. */
export interface Line {
  text: string
  /** Width in px. */
  width: number
  exact: boolean
}

interface Face {
  widths: ReadonlyMap<number, number>
  /** Advance widths of the code points below 256, in em. */
  small: Float64Array
  /** Kerning between code points below 256, in em, at [first * 256 + second]. */
  kerning: Float64Array
}

/** What is read from a font file, in units of the font: advance widths by code point, kerning by pairs of letters. */
export interface FaceMetrics {
  unitsPerEm: number
  widths: Readonly<Record<string, number>>
  kerning: Readonly<Record<string, number>>
}

function loadFace({ unitsPerEm: em, ...face }: FaceMetrics): Face {
  const widths = new Map(Object.entries(face.widths).map(([code, width]) => [Number(code), width / em]))
  const small = new Float64Array(256).fill(Number.NaN)
  for (const [code, width] of widths) if (code < 256) small[code] = width
  const kerning = new Float64Array(65_536)
  for (const [pair, kern] of Object.entries(face.kerning))
    kerning[pair.charCodeAt(0) * 256 + pair.charCodeAt(1)] = kern / em
  return { widths, small, kerning }
}

/** A letter of another cut is hardly ever wider than this, seen from the plain one. */
const UNKNOWN_CUT = 1.25

/**
 * The cuts that texts are measured in: a value that is handed in, so that the same text has the same width wherever the
 * same cuts are. Texts in a cut that is not among them count with upper bounds, as set in the plain one, which must be.
 */
export class Fonts {
  private readonly faces = new Map<FaceName, Face>()
  private missed = false

  constructor(
    private readonly metrics: Readonly<
      Record<'plain' | 'plain-bold', FaceMetrics> & Partial<Record<FaceName, FaceMetrics>>
    >,
  ) {}

  knows(name: FaceName): boolean {
    return this.metrics[name] !== undefined
  }

  /** Whether a text was measured in a cut that is not here. */
  get fellShort(): boolean {
    return this.missed
  }

  face(name: FaceName): Face {
    const known = this.faces.get(name)
    if (known) return known
    const metrics: FaceMetrics | undefined = this.metrics[name]
    if (!metrics) {
      this.missed = true
      return this.face(name.includes('bold') ? 'plain-bold' : 'plain')
    }
    const face = loadFace(metrics)
    this.faces.set(name, face)
    return face
  }
}

/** Widths in em of what the shipped fonts do not draw, as fonts that do draw it: by script, and by kind of sign. */
const USUAL_WIDTHS: readonly (readonly [RegExp, number])[] = [
  // Marks, and what shapes or joins signs without being seen.
  [/[\p{M}\p{Cf}]|\p{Emoji_Modifier}/u, 0],
  [/\p{Regional_Indicator}/u, 0.65],
  [/\p{Extended_Pictographic}/u, 1.3],
  [
    /[\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}\p{Script=Hangul}\p{Script=Bopomofo}\p{Script=Yi}\u3000-\u303f\uff00-\uffef]/u,
    1,
  ],
  [/\p{Script=Arabic}/u, 0.5],
  [/[\p{Script=Hebrew}\p{Script=Thai}\p{Script=Lao}\p{Script=Syriac}]/u, 0.58],
  [/\p{L}/u, 0.7],
]
const OTHER_WIDTH = 0.9
/** Joins the sign before it with the one after it into one. */
const JOINER = 0x200d

function usualWidth(code: number): number {
  const sign = String.fromCodePoint(code)
  return USUAL_WIDTHS.find(([signs]) => signs.test(sign))?.[1] ?? OTHER_WIDTH
}

/**
 * Width of one line of text in px, from the advance widths and kerning of the shipped fonts, so that browser, worker
 * and server agree to a hundredth of a pixel. Letters without a shipped font count with the width that is usual for them, to which
 * they are fitted when they are drawn. Linear.
 */
export function measureLine(
  fonts: Fonts,
  text: string,
  size: number,
  face: FaceName,
): { width: number; exact: boolean } {
  const { widths, small, kerning } = fonts.face(face)
  const known = fonts.knows(face)
  let em = 0
  let exact = known
  let before = 0
  let joined = 0
  for (let i = 0; i < text.length; i++) {
    let code = text.charCodeAt(i)
    if (code < 256) {
      const width = small[code]!
      if (Number.isNaN(width)) exact = false
      else em += width + (before > 0 ? kerning[before * 256 + code]! : 0)
      before = code
      continue
    }
    before = 0
    code = text.codePointAt(i)!
    if (code > 0xffff) i++
    const width = widths.get(code)
    if (width !== undefined) em += width
    else {
      exact = false
      if (joined !== JOINER) em += usualWidth(code)
    }
    joined = code
  }
  return { width: em * size * (known ? 1 : UNKNOWN_CUT), exact }
}

const NO_SPACES = /[\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}\p{Script=Thai}\p{Script=Lao}\p{Script=Khmer}]/u
const segmenter = new Intl.Segmenter('und', { granularity: 'word' })
const graphemes = new Intl.Segmenter('und', { granularity: 'grapheme' })

/** Pieces between which a line may end: words with the spaces and punctuation that follow them. */
function pieces(paragraph: string): string[] {
  if (!NO_SPACES.test(paragraph)) return paragraph.match(/\S+\s*|\s+/gu) ?? []
  const found: string[] = []
  for (const { segment, isWordLike } of segmenter.segment(paragraph)) {
    const last = found.at(-1)
    if (last !== undefined && (!isWordLike || !(/\s$/u.test(last) || NO_SPACES.test(segment) || NO_SPACES.test(last))))
      found[found.length - 1] = last + segment
    else found.push(segment)
  }
  return found
}

/** The longest beginnings of a word that fit, for words wider than a whole line. */
function chop(fonts: Fonts, word: string, maxWidth: number, size: number, face: FaceName): string[] {
  const parts: string[] = []
  let part = ''
  for (const { segment } of graphemes.segment(word)) {
    if (part !== '' && measureLine(fonts, part + segment, size, face).width > maxWidth) {
      parts.push(part)
      part = ''
    }
    part += segment
  }
  return [...parts, part]
}

/**
 * Breaks text into lines no wider than `maxWidth` px (a single letter may be wider), at word boundaries where
 * possible and at every line break. Always gives at least one line. Space at the end of a line is dropped.
 * Word boundaries follow Unicode Standard Annex 29 for scripts that are written without spaces.
 */
export function wrapText(fonts: Fonts, text: string, maxWidth: number, size: number, face: FaceName): Line[] {
  const lines: Line[] = []
  const push = (line: string) => {
    const trimmed = line.trimEnd()
    lines.push({ text: trimmed, ...measureLine(fonts, trimmed, size, face) })
  }
  for (const paragraph of text.split('\n')) {
    if (measureLine(fonts, paragraph, size, face).width <= maxWidth) {
      push(paragraph)
      continue
    }
    let line = ''
    for (const piece of pieces(paragraph)) {
      if (line !== '' && measureLine(fonts, (line + piece).trimEnd(), size, face).width > maxWidth) {
        push(line)
        line = ''
      }
      if (line !== '' || measureLine(fonts, piece.trimEnd(), size, face).width <= maxWidth) line += piece
      else {
        const parts = chop(fonts, piece, maxWidth, size, face)
        for (const part of parts.slice(0, -1)) push(part)
        line = parts.at(-1)!
      }
    }
    if (line.trim() !== '' || lines.length === 0) push(line)
  }
  return lines
}

/** Texts of more lines than this are left as they break. */
const MOST_EVEN = 5
/** How near to the narrowest width the lines are brought, as a power of two of the room there is. */
const HALVINGS = 5

/**
 * Like `wrapText`, in as few lines as `maxWidth` allows, but these as even as can be: so no short word is left alone on
 * the last one. Found by halving the width; a few times the cost of `wrapText` where there is more than one line.
 */
export function wrapEvenly(fonts: Fonts, text: string, maxWidth: number, size: number, face: FaceName): Line[] {
  let best = wrapText(fonts, text, maxWidth, size, face)
  if (best.length < 2 || best.length > MOST_EVEN) return best
  // No word is broken for it: lines stay as wide as the longest one.
  let narrow = 0
  for (const paragraph of text.split('\n'))
    for (const piece of pieces(paragraph))
      narrow = Math.max(narrow, measureLine(fonts, piece.trimEnd(), size, face).width)
  if (narrow > maxWidth) return best
  narrow = Math.max(narrow, best.reduce((sum, { width }) => sum + width, 0) / best.length)
  let wide = maxWidth
  for (let i = 0; i < HALVINGS && narrow < wide; i++) {
    const middle = (narrow + wide) / 2
    const lines = wrapText(fonts, text, middle, size, face)
    if (lines.length > best.length) narrow = middle
    else {
      best = lines
      wide = middle
    }
  }
  return best
}
