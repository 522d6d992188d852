import { foldForAddress } from '../text/folding'

/**
 * The address of a heading on its page: lower case, letters and digits of any script kept, runs of anything else
 * turned into one hyphen. Empty for a text without letters and digits.
 */
export const headingAddress = foldForAddress

/**
 * Follows a relative address from a page to a path inside the same folder. Null for absolute addresses and for those
 * that lead out of the folder.
 */
export function resolveAddress(from: string, address: string): { path: string; fragment: string } | null {
  if (/^[a-z][a-z0-9+.-]*:|^\/|^\\/i.test(address)) return null
  const [rawPath = '', rawFragment = ''] = address.split('#', 2)
  const parts = rawPath === '' ? from.split('/') : [...from.split('/').slice(0, -1), ...decoded(rawPath).split('/')]
  const path: string[] = []
  for (const part of parts) {
    if (part === '' || part === '.') continue
    if (part !== '..') path.push(part)
    else if (path.pop() === undefined) return null
  }
  return { path: path.join('/'), fragment: decoded(rawFragment) }
}

function decoded(text: string): string {
  try {
    return decodeURIComponent(text)
  } catch {
    return text
  }
}
