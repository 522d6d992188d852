import type { z } from 'zod'
import { storedText } from './text'

/** Most bytes of a name in UTF-8: what every file system and zip can take, with room for what is put before it. */
const MOST_BYTES = 200

/** Controls, line and paragraph separators, and signs that turn the direction of what follows. */
const UNSEEN = /[\p{Cc}\u2028\u2029\u061c\u200e\u200f\u202a-\u202e\u2066-\u2069]/u
const UNSEEN_ALL = new RegExp(UNSEEN, 'gu')

const bytesOf = (text: string): number => {
  let bytes = 0
  for (const sign of text) {
    const code = sign.codePointAt(0)!
    bytes += code < 0x80 ? 1 : code < 0x800 ? 2 : code < 0x10000 ? 3 : 4
  }
  return bytes
}

const graphemes = new Intl.Segmenter('und', { granularity: 'grapheme' })

const isDots = (name: string) => name === '.' || name === '..'

/** A name of a file, without any path: what it says is what a person sees, and every system can store it. */
export const FileName = storedText(255)
  .min(1)
  .refine((name) => !/[\\/]/.test(name) && !UNSEEN.test(name) && !isDots(name) && name === name.trim(), {
    error: 'A file name has no slashes, line breaks or signs that cannot be seen.',
  })

/** A name as `FileName` wants it, made from any text: the last part of a path, cut before its ending. Never empty. */
export function fileNameFrom(text: string): string {
  const last = text.split(/[\\/]/).at(-1)!
  const plain = last.replace(UNSEEN_ALL, '').toWellFormed().trim()
  return plain === '' || isDots(plain) ? 'file' : shortFileName(plain, MOST_BYTES)
}

/** A file name of at most `most` bytes in UTF-8; what is cut stands before the ending, and no sign is cut in half. */
export function shortFileName(name: string, most: number): string {
  if (bytesOf(name) <= most) return name
  const dot = name.lastIndexOf('.')
  const ending = dot > 0 && bytesOf(name.slice(dot)) <= 24 ? name.slice(dot) : ''
  let room = most - bytesOf(ending)
  let stem = ''
  for (const { segment } of graphemes.segment(name.slice(0, name.length - ending.length))) {
    room -= bytesOf(segment)
    if (room < 0) break
    stem += segment
  }
  return (stem.trimEnd() || 'file') + ending
}

export type FileName = z.infer<typeof FileName>
