import paths from './icon-paths.generated.json'

const PREFIX = 'icon:'
const outlines: Readonly<Record<string, string>> = paths

/** The outline of a badge that is one of our icons, 24 × 24; null for an emoji, and for an icon that is not known. */
export function iconPath(badge: string): string | null {
  return badge.startsWith(PREFIX) ? (outlines[badge.slice(PREFIX.length)] ?? null) : null
}

/** The names of all icons, in the order in which they are offered. */
export const ICON_NAMES: readonly string[] = Object.keys(outlines)

export const iconBadge = (name: string): string => PREFIX + name

/** What a badge is called by somebody who cannot see it. */
export const badgeName = (badge: string): string =>
  badge.startsWith(PREFIX) ? badge.slice(PREFIX.length).replaceAll('-', ' ') : badge
