import { useState } from 'react'
import { browserStorage } from './browser-storage'

/** What is kept of the browser's storage for what is half written: text by field. */
const PREFIX = 'folvet-half-written:'

/** What was half written in a field and is nothing yet; empty where nothing was. */
export const halfWritten = (field: string): string => browserStorage.get(PREFIX + field) ?? ''

export function keepHalfWritten(field: string, text: string): void {
  if (text === '') browserStorage.remove(PREFIX + field)
  else browserStorage.set(PREFIX + field, text)
}

/** What is kept below a name: what follows the name in each field of which something is half written. */
export const halfWrittenBelow = (name: string): string[] => browserStorage.below(PREFIX + name)

/** Forgets what this person had half written anywhere: whoever comes next at this computer finds nothing of it. */
export function forgetHalfWritten(person: string): void {
  for (const field of halfWrittenBelow('')) if (field.includes(`:${person}:`)) keepHalfWritten(field, '')
}

/**
 * The text of a field that is kept as long as it is nothing yet: when its topic is left, its section folded, the page loaded anew.
 * `field` says whose it is and what it is about; null keeps nothing.
 */
export function useHalfWritten(field: string | null, before = ''): [string, (text: string) => void] {
  const [text, setText] = useState(() => (field === null ? before : halfWritten(field) || before))
  return [
    text,
    (next) => {
      setText(next)
      if (field !== null) keepHalfWritten(field, next === before ? '' : next)
    },
  ]
}
