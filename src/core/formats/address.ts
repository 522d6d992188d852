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

/**
 * Follows an address from a page to something that is there: from the page, or, as addresses that begin with `/` do, from the top of
 * a site of which the folder is a part, so that folders before it are left out one after the other. Null where there is none.
 */
export function resolveAmong(
  from: string,
  address: string,
  isThere: (path: string) => boolean,
): { path: string; fragment: string } | null {
  if (!/^\/(?!\/)/.test(address)) {
    const target = resolveAddress(from, address)
    return target && isThere(target.path) ? target : null
  }
  const parts = address.split(/[?#]/, 1)[0]!.split('/').filter(Boolean).slice(-MOST_FOLDERS)
  for (let left = 0; left < parts.length; left++) {
    const target = resolveAddress('', parts.slice(left).join('/') + address.slice(address.search(/#|$/)))
    if (target && isThere(target.path)) return target
  }
  return null
}
const MOST_FOLDERS = 30

function decoded(text: string): string {
  try {
    return decodeURIComponent(text)
  } catch {
    return text
  }
}
