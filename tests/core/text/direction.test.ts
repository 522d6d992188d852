import { expect, test } from 'vitest'
import { isRightToLeft } from '../../../src/core/text/direction'

test('a text reads from right to left where its first letter does', () => {
  expect(['שלום', '12 مستنقع', '… שלום world'].map(isRightToLeft)).toEqual([true, true, true])
  expect(['bog שלום', '12', '', '水'].map(isRightToLeft)).toEqual([false, false, false, false])
})
