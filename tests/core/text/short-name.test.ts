import { expect, test } from 'vitest'
import { shortName } from '../../../src/core/text/short-name'

const rest = ' and so on, word after word, until nobody would call it the name of anything any more at all'

test.each([
  ['a text of up to 100 letters is a name itself', 'x'.repeat(100), null],
  [
    'the first sentence, where it is long enough to say something',
    `Close the sluice. Then wait${rest}`,
    'Close the sluice…',
  ],
  [
    'else the words up to a comma or a dash',
    `Close the sluice, then wait${rest.replaceAll(',', '')}`,
    'Close the sluice…',
  ],
  [
    'else whole words',
    `${'word '.repeat(30)}`,
    'word word word word word word word word word word word word word word word word…',
  ],
  ['else letters', '🌊'.repeat(60), `${'🌊'.repeat(40)}…`],
])('%s', (_, text, name) => {
  expect(shortName(text)).toBe(name)
})
