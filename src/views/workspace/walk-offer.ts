const OFFERED = 'folvet-walk-offered'

/** What this browser remembers of the offer; where it keeps nothing, as if the walk had been offered: not each time. */
function remembered(): string | null {
  try {
    return localStorage.getItem(OFFERED)
  } catch {
    return 'done'
  }
}

function remember(what: 'next' | 'done'): void {
  try {
    localStorage.setItem(OFFERED, what)
  } catch {
    // It is not offered then.
  }
}

/** Offers the walk the next time that a map is opened, unless it was offered in this browser before. */
export function offerWalk(): void {
  if (remembered() === null) remember('next')
}

/** Whether the walk is to be offered now; only once. */
export function takeWalkOffer(): boolean {
  if (remembered() !== 'next') return false
  remember('done')
  return true
}
