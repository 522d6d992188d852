import { useState } from 'react'

/** What is kept of the browser's storage for what is half written: text by field. */
const PREFIX = 'folvet-half-written:'

/** What was half written in a field and is nothing yet; empty where nothing was. */
export function halfWritten(field: string): string {
  try {
    return localStorage.getItem(PREFIX + field) ?? ''
  } catch {
    return ''
  }
}

export function keepHalfWritten(field: string, text: string): void {
  try {
    if (text === '') localStorage.removeItem(PREFIX + field)
    else localStorage.setItem(PREFIX + field, text)
  } catch {
    // A browser that keeps nothing must not keep the person from writing.
  }
}

/** What is kept below a name: what follows the name in each field of which something is half written. */
export function halfWrittenBelow(name: string): string[] {
  try {
    const keys = Object.keys(localStorage).filter((key) => key.startsWith(PREFIX + name))
    return keys.map((key) => key.slice(PREFIX.length + name.length))
  } catch {
    return []
  }
}

/** Forgets what was half written anywhere: whoever comes next at this computer finds nothing of it. */
export function forgetHalfWritten(): void {
  for (const field of halfWrittenBelow('')) keepHalfWritten(field, '')
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
