import { Fragment } from 'react'

/** A text on one line in which the words that were looked for are marked, in capitals or not. */
export function Marked({ text, words }: { text: string; words: string }) {
  const wanted = words.split(/\s+/).filter(Boolean)
  const line = text.replace(/\s+/g, ' ').trim()
  if (wanted.length === 0) return line
  const any = new RegExp(`(${wanted.map((word) => word.replace(/[\\^$.*+?()[\]{}|]/g, '\\$&')).join('|')})`, 'giu')
  // Every second part is what the expression caught.
  return line.split(any).map((part, i) => {
    const key = `${i} ${part}`
    return i % 2 === 1 ? <mark key={key}>{part}</mark> : <Fragment key={key}>{part}</Fragment>
  })
}
