/**
 * Reads advance widths and kerning out of the shipped fonts and writes them to
 * src/core/text/font-metrics.generated.json, so that browser, worker and server measure text alike.
 * `--check` fails when the file does not match the fonts.
 */
import { readFileSync, writeFileSync } from 'node:fs'
import { createRequire } from 'node:module'
import { dirname, join } from 'node:path'
import * as fontkit from 'fontkit'

const require = createRequire(import.meta.url)
const fontFolder = join(dirname(require.resolve('@fontsource/source-sans-3/package.json')), 'files')
const target = new URL('../src/core/text/font-metrics.generated.json', import.meta.url)

const WEIGHTS = [400, 600] as const
const SUBSETS = ['latin', 'latin-ext', 'greek', 'cyrillic', 'vietnamese'] as const
/** Kerning is kept for pairs of these letters: the ones that fill nearly all running text. */
const KERNED = [...Array(0x17f - 0x20).keys()]
  .map((i) => i + 0x20)
  .filter((code) => code < 0x7f || (code > 0xbf && code < 0x100))

interface Face {
  unitsPerEm: number
  ascent: number
  descent: number
  /** Advance widths in font units, by code point. */
  widths: Record<string, number>
  /** Kerning in font units, by pair of letters. */
  kerning: Record<string, number>
}

function open(subset: string, weight: number): fontkit.Font {
  return fontkit.openSync(join(fontFolder, `source-sans-3-${subset}-${weight}-normal.woff2`)) as fontkit.Font
}

function face(weight: number): Face {
  const latin = open('latin', weight)
  const widths: Record<string, number> = {}
  for (const subset of SUBSETS) {
    const font = open(subset, weight)
    for (const code of font.characterSet) {
      if (code >= 0x20 && widths[code] === undefined) widths[code] = font.glyphForCodePoint(code).advanceWidth
    }
  }
  const kerning: Record<string, number> = {}
  const advance = (text: string) => latin.layout(text, { liga: false }).advanceWidth
  for (const a of KERNED)
    for (const b of KERNED) {
      const pair = String.fromCodePoint(a, b)
      const kern = advance(pair) - widths[a]! - widths[b]!
      if (Math.abs(kern) >= 1) kerning[pair] = Math.round(kern)
    }
  return { unitsPerEm: latin.unitsPerEm, ascent: latin.ascent, descent: latin.descent, widths, kerning }
}

const json = `${JSON.stringify(Object.fromEntries(WEIGHTS.map((weight) => [weight, face(weight)])))}\n`
if (process.argv.includes('--check')) {
  if (readFileSync(target, 'utf8') !== json) {
    console.error('The font metrics do not match the shipped fonts. Run npm run fonts.')
    process.exit(1)
  }
} else writeFileSync(target, json)
