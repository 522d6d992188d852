import { expect, test } from 'vitest'
import { takeAnchors } from '../../src/core/formats/anchors'
import { readOutlineText } from '../../src/core/formats/outline-text'
import { readDocument, readText } from '../../src/core/formats/read-text'
import { proposeChart, readTable } from '../../src/core/formats/table-file'
import { linkedIn } from '../../src/core/network/note-links'
import { readCommonMark } from '../../src/core/text/commonmark'
import { foldForAddress } from '../../src/core/text/folding'
import { mergeText } from '../../src/core/text/merge-text'
import { EXCERPT_WINDOW, noteBeginning, noteExcerpt } from '../../src/core/text/note-beginning'
import { readNote } from '../../src/core/text/note-document'
import { findPassage } from '../../src/core/text/passage'
import { quotation } from '../../src/core/text/quotation'
import { shortName } from '../../src/core/text/short-name'
import { countNoteWords } from '../../src/core/text/word-count'
import { wordDifference } from '../../src/core/text/word-difference'

const LETTERS = 40_000
/** What takes longer grows faster than its text: at this length the slowest reader takes a tenth of it. */
const MOST_MS = 3_000
const TRIES = 3

/** All that reads text which people bring along. */
const READERS: Record<string, (text: string) => unknown> = {
  'a text that is pasted': readText,
  'a page': (text) => readDocument(text, 'page.md'),
  'a page of HTML': (text) => readDocument(text, 'page.html'),
  'an outline': readOutlineText,
  'a note': readNote,
  'a note as blocks': readCommonMark,
  'links of a note': linkedIn,
  'named places': takeAnchors,
  'a table': (text) => proposeChart(readTable(text)),
  'the beginning of a note': (text) => noteBeginning(text, 200),
  'an excerpt': (text) => noteExcerpt(text.slice(0, EXCERPT_WINDOW.most), ['a', 'b'], 100, 300),
  'a passage': (text) => findPassage(text, `${text.slice(0, 400)}zz`),
  'a quotation': (text) => quotation([text], null),
  'a short name': shortName,
  'a name in an address': foldForAddress,
  'a count of words': countNoteWords,
  'two notes joined': (text) => mergeText(text, `x\n${text}`, `${text}\ny`),
  'a difference of words': (text) => wordDifference(text, `${text.slice(1)}x`),
}

/** What, many times over, has stopped readers of text. */
const REPEATED = [
  ...[
    '](',
    '[',
    '![',
    '[a](<',
    '[a](b "',
    '[[',
    '[a]: b\n',
    '*',
    '**a',
    '_a_',
    '`',
    '``a`',
    '~~',
    '<',
    '<a ',
    '<a id=x>',
    '<!--',
    '<p>a',
  ],
  ...[
    '<table><tr><td>',
    '<details><summary>',
    '&',
    '&#',
    '> ',
    '- ',
    '- [ ] ',
    '1. ',
    '# ',
    '|a',
    '---\n',
    '===\n',
    '```\n',
    '    a\n',
  ],
  ...[
    ' ',
    '\t',
    '\n',
    '\r',
    '\u2028',
    ' \n',
    'a ',
    'a\n',
    '\\',
    '"',
    ',',
    '",',
    ':',
    '.',
    '@',
    'http://a',
    '\u0300',
    '\u200d',
    '\ufdd0',
    '😀',
  ],
]

test.each(Object.entries(READERS))('%s of the worst sort is read in a bounded time', (_, read) => {
  const slow = REPEATED.flatMap((part) => {
    const text = part.repeat(LETTERS / part.length)
    let ms = Number.POSITIVE_INFINITY
    // A machine on which others work too can stand still once, not each time.
    for (let tries = 0; tries < TRIES && ms > MOST_MS; tries++) {
      const begin = process.cpuUsage()
      read(text)
      ms = Math.round(process.cpuUsage(begin).user / 1_000)
    }
    return ms > MOST_MS ? [{ part, ms }] : []
  })
  expect(slow).toEqual([])
})
