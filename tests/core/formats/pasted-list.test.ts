import { expect, test } from 'vitest'
import { pastedList } from '../../../src/core/formats/pasted-list'

test.each([
  ['into an item that was begun', '  - ', '- one\n- two', 'one\n  - two'],
  ['with what is set in below it', '- ', '* one\n  * below\n* two\n', 'one\n  - below\n- two'],
  ['onto an empty line', '', '- one\n- two', '- one\n- two'],
  ['behind words', '- Peas', '- one\n- two', '\n- one\n- two'],
  ['from within another list', '- ', '    - one\n      - below\n    - two', 'one\n  - below\n- two'],
  ['numbered', '- ', '1. one\n2. two', 'one\n2. two'],
])('a list is pasted %s', (_, before, pasted, expected) => expect(pastedList(before, pasted)).toBe(expected))

test.each(['two words', 'a line\n- and a list', '', '\n', '-one'])('%j is no list', (pasted) =>
  expect(pastedList('- ', pasted)).toBeNull(),
)
