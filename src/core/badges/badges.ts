const PREFIX = 'icon:'
let outlines: Readonly<Record<string, string>> | null = null
let missed = false

/** Makes the outlines of icons known; see `outlines.ts`. Until then icons are drawn as unknown ones. */
export function addOutlines(paths: Readonly<Record<string, string>>): void {
  outlines = paths
}

/** Whether an outline was asked for before they were known. */
export const outlinesMissed = (): boolean => missed && outlines === null

/** The outline of a badge that is one of our icons, 24 × 24; null for an emoji, and for an icon that is not known. */
export function iconPath(badge: string): string | null {
  if (!badge.startsWith(PREFIX)) return null
  if (!outlines) missed = true
  return outlines?.[badge.slice(PREFIX.length)] ?? null
}

export const iconBadge = (name: string): string => PREFIX + name

/** What a badge is called by somebody who cannot see it. */
export const badgeName = (badge: string): string =>
  badge.startsWith(PREFIX) ? badge.slice(PREFIX.length).replaceAll('-', ' ') : badge
