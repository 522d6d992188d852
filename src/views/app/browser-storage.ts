/** What the browser keeps at once, by name, for as long as nobody clears it. A browser that keeps nothing keeps nobody from working. */
export const browserStorage = {
  get(name: string): string | null {
    try {
      return localStorage.getItem(name)
    } catch {
      return null
    }
  },

  /** What was kept as JSON; null where that is nothing, or cannot be read any more. */
  json<Kept>(name: string): Kept | null {
    try {
      return JSON.parse(this.get(name) ?? 'null')
    } catch {
      return null
    }
  },

  /** Whether it was kept: there may be no room, or the browser may keep nothing. */
  set(name: string, value: string): boolean {
    try {
      localStorage.setItem(name, value)
      return true
    } catch {
      return false
    }
  },

  remove(name: string): void {
    try {
      localStorage.removeItem(name)
    } catch {
      // Nothing is kept then either.
    }
  },

  /** What follows `prefix` in each name that begins with it. */
  below(prefix: string): string[] {
    try {
      return Object.keys(localStorage)
        .filter((name) => name.startsWith(prefix))
        .map((name) => name.slice(prefix.length))
    } catch {
      return []
    }
  },
}
