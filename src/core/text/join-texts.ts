import { trimEndOf } from './trim-end'

/** One text after the other with an empty line between; where one is empty, the other alone. Linear. */
export const joinTexts = (first: string, second: string): string =>
  first.trim() === ''
    ? second
    : second.trim() === ''
      ? first
      : `${trimEndOf(first, '\n')}\n\n${second.replace(/^\n+/, '')}`
