const DAY_MS = 86_400_000

/**
 * A moment as people say it, in the words of the browser's language: "today 14:20", "yesterday 09:05", "3 March", "3 March 2025".
 * `now` is the moment at which it is said.
 */
export function sayWhen(at: Date, now = new Date(), language?: string): string {
  const midnight = (day: Date) => new Date(day.getFullYear(), day.getMonth(), day.getDate()).getTime()
  const days = Math.round((midnight(at) - midnight(now)) / DAY_MS)
  if (days === 0 || days === -1) {
    const day = new Intl.RelativeTimeFormat(language, { numeric: 'auto' }).format(days, 'day')
    return `${day} ${at.toLocaleTimeString(language, { hour: '2-digit', minute: '2-digit', hour12: false })}`
  }
  const year = at.getFullYear() === now.getFullYear() ? undefined : 'numeric'
  return at.toLocaleDateString(language, { day: 'numeric', month: 'long', year })
}
