import { expect, test } from 'vitest'
import { readableSize } from '../../../src/core/text/readable-size'

test('sizes are told in decimal units', () => {
  expect([0, 999, 1_000, 41_250, 999_000, 12_340_000].map(readableSize)).toEqual([
    '0 B',
    '999 B',
    '1.0 kB',
    '41.3 kB',
    '999.0 kB',
    '12.3 MB',
  ])
})
