const PREFIX = 'icon:'
/** The outlines of icons, by name: a value that is handed in to whoever draws. */
export class Icons {
  private missed = false

  constructor(private readonly outlines: Readonly<Record<string, string>>) {}

  /** Whether an icon was asked for that is not here. */
  get fellShort(): boolean {
    return this.missed
  }

  /** The outline of a badge that is one of our icons, 24 × 24; null for an emoji, and for an icon that is not known. */
  path(badge: string): string | null {
    if (!badge.startsWith(PREFIX)) return null
    const name = badge.slice(PREFIX.length)
    if (Object.hasOwn(this.outlines, name)) return this.outlines[name]!
    this.missed = true
    return null
  }
}

export const iconBadge = (name: string): string => PREFIX + name

/** What a badge is called by somebody who cannot see it. */
export const badgeName = (badge: string): string =>
  badge.startsWith(PREFIX) ? badge.slice(PREFIX.length).replaceAll('-', ' ') : badge
