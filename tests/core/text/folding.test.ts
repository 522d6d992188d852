import { readFileSync } from 'node:fs'
import { describe, expect, test } from 'vitest'
import { readCommonMarkOutline } from '../../../src/core/formats/commonmark-outline'
import { writeIndentedText } from '../../../src/core/formats/indented-text'
import {
  foldForAddress,
  foldForFinding,
  foldForIdentity,
  foldForSorting,
  wordsForFinding,
} from '../../../src/core/text/folding'
import { joinTexts } from '../../../src/core/text/join-texts'
import { noteBeginning } from '../../../src/core/text/note-beginning'
import { trimEndOf } from '../../../src/core/text/trim-end'
import { typedNumber } from '../../../src/core/tree/numbering'

/** Pairs by script: what is the same when found, and what is another word. */
const SAME: Record<string, [string, string]> = {
  'Latin: case and accents': ['Äpfel Café', 'apfel cafe'],
  'Latin: sharp s': ['Straße', 'STRASSE'],
  'Latin: full width': ['Ｗater', 'water'],
  'Greek: tonos and final sigma': ['Οδός', 'ΟΔΟΣ'],
  'Cyrillic: stress': ['за́мок', 'замок'],
  'Arabic: vowel points': ['مَدْرَسَة', 'مدرسة'],
  'Hebrew: points': ['שָׁלוֹם', 'שלום'],
  'Korean: composition': ['한글'.normalize('NFD'), '한글'],
  'Devanagari: composition': ['क़लम'.normalize('NFC'), 'क़लम'.normalize('NFD')],
}
const OTHER: Record<string, [string, string]> = {
  'Devanagari: vowel signs': ['कि', 'की'],
  'Thai: tone marks': ['ไม่', 'ไหม้'],
  'Japanese: voicing marks': ['かき', 'かぎ'],
  'Chinese: characters': ['水', '木'],
  'Korean: syllables': ['물', '불'],
  'Cyrillic: letters': ['кот', 'кит'],
}

describe('texts as they are found', () => {
  test.each(Object.entries(SAME))('%s are the same', (_, [a, b]) => {
    expect(foldForFinding(a)).toBe(foldForFinding(b))
    expect(foldForAddress(a)).toBe(foldForAddress(b))
  })
  test.each(Object.entries(OTHER))('%s tell words apart', (_, [a, b]) => {
    expect(foldForFinding(a)).not.toBe(foldForFinding(b))
    expect(foldForAddress(a)).not.toBe(foldForAddress(b))
  })
  test('are cut into words, marks of letters included', () => {
    expect(wordsForFinding('Dams & weirs: किताब, 2nd!')).toEqual(['dams', 'weirs', 'किताब', '2nd'])
    expect(foldForAddress(' A  b/c. ')).toBe('a-b-c')
    expect(foldForAddress('!?')).toBe('')
  })
})

test('names are the same in other case, width and composition, and not without their accents', () => {
  expect(foldForIdentity('  Nass  WIESE ')).toBe(foldForIdentity('nass wiese'))
  expect(foldForIdentity('Café')).toBe(foldForIdentity('CAFÉ'.normalize('NFD')))
  expect(foldForIdentity('Café')).not.toBe(foldForIdentity('Cafe'))
})

test('texts are sorted with numbers by their value', () => {
  const sorted = ['Map 10', 'map 2', 'Äpfel', 'Map 002', 'Zebra'].sort((a, b) =>
    foldForSorting(a) < foldForSorting(b) ? -1 : 1,
  )
  expect(sorted).toEqual(['Äpfel', 'map 2', 'Map 002', 'Map 10', 'Zebra'])
})

test('the published site finds words by the folding that made its index', () => {
  const script = readFileSync('src/site/assets/reader.js', 'utf8')
  const [, marks = ''] = /const OPTIONAL_MARKS =\s*(\/.*\/gu)/.exec(script) ?? []
  const [, steps = ''] = /const wordsOf = \(text\) =>([\s\S]*?\|\| \[\])/.exec(script) ?? []
  const wordsOf = new Function(
    'text',
    `const OPTIONAL_MARKS = ${marks}; return ${steps.replace(/\/\/.*$/m, '').trim()}`,
  )
  for (const [a, b] of [...Object.values(SAME), ...Object.values(OTHER)])
    for (const text of [a, b]) expect(wordsOf(text)).toEqual(wordsForFinding(text))
})

describe('long runs of one sign cost no more than their length', () => {
  const long = (sign: string) => `a${sign.repeat(200_000)}b`
  test.each([
    ['a number and letters', () => typedNumber(`1${'ab'.repeat(50_000)}`)],
    ['digits and dots', () => typedNumber(`${'1.1'.repeat(50_000)}`)],
    ['line ends between notes', () => joinTexts(long('\n'), long('\n'))],
    ['the end of a text', () => trimEndOf(long('\n'), '\n')],
    ['spaces in a heading', () => readCommonMarkOutline(`# ${long(' ')}\n\n- ${long(' ')}`)],
    [
      'spaces in an item',
      () => writeIndentedText([{ text: long(' '), note: '', links: [], noteLinks: [], children: [] }]),
    ],
    ['marks at the beginning of a note', () => noteBeginning('*_'.repeat(100_000), 160)],
    ['folding', () => foldForSorting(long('0') + long('\u0301'))],
  ])('%s', (_, work) => {
    const start = performance.now()
    work()
    expect(performance.now() - start).toBeLessThan(1_000)
  })
})
