/**
 * Reads advance widths and kerning out of the shipped fonts, so that browser, worker and server measure text alike: the
 * plain cuts into src/core/text/font-metrics.generated.json, all others, which a browser loads when it needs them, into
 * more-font-metrics.generated.json. `--check` fails when the files do not match the fonts.
 */
import { readFileSync, writeFileSync } from 'node:fs'
import { createRequire } from 'node:module'
import { dirname, join } from 'node:path'
import * as fontkit from 'fontkit'

const require = createRequire(import.meta.url)
const ALL = ['latin', 'latin-ext', 'greek', 'cyrillic', 'vietnamese'] as const
const LATIN = ['latin', 'latin-ext'] as const

/** A shipped cut of a font. */
interface Cut {
  family: string
  cut: string
  subsets: readonly string[]
}
const cut = (family: string, name: string, subsets: readonly string[]): Cut => ({ family, cut: name, subsets })

const FIRST: Record<string, Cut> = {
  plain: cut('source-sans-3', '400-normal', ALL),
  'plain-bold': cut('source-sans-3', '600-normal', ALL),
}
const MORE: Record<string, Cut> = {
  'plain-italic': cut('source-sans-3', '400-italic', ALL),
  'plain-bold-italic': cut('source-sans-3', '600-italic', ALL),
  reading: cut('literata', '400-normal', ALL),
  'reading-bold': cut('literata', '600-normal', ALL),
  'reading-italic': cut('literata', '400-italic', ALL),
  'reading-bold-italic': cut('literata', '600-italic', ALL),
  hand: cut('kalam', '400-normal', LATIN),
  'hand-bold': cut('kalam', '700-normal', LATIN),
}

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

function open({ family, cut }: Cut, subset: string): fontkit.Font {
  const folder = join(dirname(require.resolve(`@fontsource/${family}/package.json`)), 'files')
  return fontkit.openSync(join(folder, `${family}-${subset}-${cut}.woff2`)) as fontkit.Font
}

function face(cut: Cut): Face {
  const latin = open(cut, 'latin')
  const widths: Record<string, number> = {}
  for (const subset of cut.subsets) {
    const font = open(cut, subset)
    for (const code of font.characterSet) {
      if (code >= 0x20 && widths[code] === undefined) widths[code] = font.glyphForCodePoint(code).advanceWidth
    }
  }
  const kerning: Record<string, number> = {}
  const advance = (text: string) => latin.layout(text, { liga: false }).advanceWidth
  for (const a of KERNED)
    for (const b of KERNED) {
      if (widths[a] === undefined || widths[b] === undefined) continue
      const pair = String.fromCodePoint(a, b)
      const kern = advance(pair) - widths[a] - widths[b]
      if (Math.abs(kern) >= 1) kerning[pair] = Math.round(kern)
    }
  return { unitsPerEm: latin.unitsPerEm, ascent: latin.ascent, descent: latin.descent, widths, kerning }
}

for (const [name, cuts] of [
  ['font-metrics', FIRST],
  ['more-font-metrics', MORE],
] as const) {
  const target = new URL(`../src/core/text/${name}.generated.json`, import.meta.url)
  const faces = Object.entries(cuts).map(([faceName, its]) => [faceName, face(its)])
  const json = `${JSON.stringify(Object.fromEntries(faces))}\n`
  if (!process.argv.includes('--check')) writeFileSync(target, json)
  else if (readFileSync(target, 'utf8') !== json) {
    console.error('The font metrics do not match the shipped fonts. Run npm run fonts.')
    process.exit(1)
  }
}
