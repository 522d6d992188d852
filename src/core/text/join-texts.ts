/** One text after the other with an empty line between. */
export const joinTexts = (first: string, second: string): string =>
  first.trim() === '' ? second : `${first.replace(/\n+$/, '')}\n\n${second.replace(/^\n+/, '')}`
