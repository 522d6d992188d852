import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { FileName, fileNameFrom, shortFileName } from '../../../src/core/records/file-name'
import { cutText } from '../../../src/core/records/text'

const bytes = (text: string) => new TextEncoder().encode(text).length

describe('the name of a file', () => {
  test.each([
    ['../../etc/passwd', 'passwd'],
    ['C:\\work\\plan.txt', 'plan.txt'],
    ['in\u202Evoice\u0000.pdf', 'invoice.pdf'],
    ['two\nlines.txt', 'twolines.txt'],
    ['..', 'file'],
    ['', 'file'],
    [' \u200f ', 'file'],
  ])('%j becomes %j', (text, name) => {
    expect(fileNameFrom(text)).toBe(name)
  })

  test('made from anything can be stored; cut, it keeps its ending and whole signs', () => {
    fc.assert(
      fc.property(fc.oneof(fc.string({ unit: 'binary' }), fc.string({ unit: 'grapheme', maxLength: 400 })), (text) => {
        expect(FileName.safeParse(fileNameFrom(text)).success).toBe(true)
      }),
    )
    const chinese = `${'图'.repeat(100)}.pdf`
    const short = fileNameFrom(chinese)
    expect(bytes(short)).toBeLessThanOrEqual(200)
    expect(short.endsWith('图.pdf')).toBe(true)
    for (let most = 10; most < 60; most++) {
      const cut = shortFileName(`${'🧑🏽‍🌾'.repeat(8)}.txt`, most)
      expect(bytes(cut)).toBeLessThanOrEqual(most)
      expect(cut.replace(/^(🧑🏽‍🌾)*/u, '')).toMatch(/^(file)?\.txt$/)
    }
  })

  test.each(['../up', 'a/b', 'a\\b', 'line\nbreak', 'turn\u202eed', '.', '', ' padded', 'nul\u0000'])(
    'cannot be %j',
    (name) => {
      expect(FileName.safeParse(name).success).toBe(false)
    },
  )
})

test('a text that is cut ends before a sign that would not fit whole', () => {
  expect(cutText('ab👍🏽cd', 4)).toBe('ab')
  expect(cutText('ab👍🏽cd', 6)).toBe('ab👍🏽')
  expect(cutText('short', 10)).toBe('short')
})
