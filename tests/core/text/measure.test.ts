import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { COMMON_FONTS } from '../../../src/core/text/common-fonts'
import { measureLine, wrapEvenly, wrapText } from '../../../src/core/text/measure'

describe('measuring text', () => {
  test('adds advance widths and kerning of the shipped font', () => {
    const ab = measureLine(COMMON_FONTS, 'AV', 1000, 'plain').width
    expect(ab).toBeLessThan(
      measureLine(COMMON_FONTS, 'A', 1000, 'plain').width + measureLine(COMMON_FONTS, 'V', 1000, 'plain').width,
    )
    expect(measureLine(COMMON_FONTS, 'bog', 20, 'plain-bold').width).toBeGreaterThan(
      measureLine(COMMON_FONTS, 'bog', 20, 'plain').width,
    )
    expect(measureLine(COMMON_FONTS, '', 20, 'plain')).toEqual({ width: 0, exact: true })
  })

  test('says where a letter is not in the fonts, and takes the width that is usual for it', () => {
    expect(measureLine(COMMON_FONTS, 'Größe č ў', 16, 'plain').exact).toBe(true)
    expect(measureLine(COMMON_FONTS, '水', 16, 'plain')).toEqual({ width: 16, exact: false })
    expect(measureLine(COMMON_FONTS, '🌱', 10, 'plain').width).toBeCloseTo(13)
    // Signs that are joined into one, or only alter the one before, take its room.
    for (const sign of ['👩‍🌾', '👍🏽', '🇩🇪'])
      expect(measureLine(COMMON_FONTS, sign, 10, 'plain').width).toBeCloseTo(13)
    const [plain, marked] = ['قياس', 'قِيَاس'].map((text) => measureLine(COMMON_FONTS, text, 16, 'plain').width)
    expect(marked).toBe(plain)
  })

  test('wraps within the width and loses no word', () => {
    const word = fc.stringMatching(/^[a-zäöü]{1,14}$/)
    fc.assert(
      fc.property(
        fc.array(word, { minLength: 1, maxLength: 40 }),
        fc.integer({ min: 120, max: 400 }),
        (words, width) => {
          const lines = wrapText(COMMON_FONTS, words.join(' '), width, 15, 'plain')
          for (const line of lines) expect(line.width).toBeLessThanOrEqual(width)
          expect(lines.map((line) => line.text).join(' ')).toBe(words.join(' '))
        },
      ),
    )
  })

  test('evens lines out without one more, and leaves no short word alone on the last', () => {
    expect(
      wrapEvenly(COMMON_FONTS, '36 permanent plots of 2 by 2 m', 180, 15, 'plain').map(({ text }) => text),
    ).toEqual(['36 permanent', 'plots of 2 by 2 m'])
    const word = fc.stringMatching(/^[a-zäöü]{1,9}$/)
    fc.assert(
      fc.property(
        fc.array(word, { minLength: 1, maxLength: 30 }),
        fc.integer({ min: 120, max: 400 }),
        (words, width) => {
          const text = words.join(' ')
          const [greedy, even] = [
            wrapText(COMMON_FONTS, text, width, 15, 'plain'),
            wrapEvenly(COMMON_FONTS, text, width, 15, 'plain'),
          ]
          const widest = (lines: readonly { width: number }[]) => Math.max(...lines.map((line) => line.width))
          expect(even.length).toBe(greedy.length)
          expect(widest(even)).toBeLessThanOrEqual(widest(greedy))
          expect(even.map((line) => line.text).join(' ')).toBe(text)
        },
      ),
      { numRuns: 1_000, examples: [[['üääöäaaüa', 'ääaümü'], 120]] },
    )
  })

  test('breaks long words, scripts without spaces, and keeps line breaks', () => {
    expect(wrapText(COMMON_FONTS, 'x'.repeat(5_000), 200, 15, 'plain').every(({ width }) => width <= 200)).toBe(true)
    expect(wrapText(COMMON_FONTS, '高層湿原の水位は夏に下がる'.repeat(3), 200, 15, 'plain').length).toBeGreaterThan(2)
    expect(wrapText(COMMON_FONTS, 'one\n\ntwo', 200, 15, 'plain').map(({ text }) => text)).toEqual(['one', '', 'two'])
  })
})
