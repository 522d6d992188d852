import { trimEndOf } from './trim-end'

/** One text after the other with an empty line between. Linear. */
export const joinTexts = (first: string, second: string): string =>
  first.trim() === '' ? second : `${trimEndOf(first, '\n')}\n\n${second.replace(/^\n+/, '')}`
