/** Does something when the browser has nothing else to do; a moment later where it cannot tell. */
export function whenIdle(work: () => void): void {
  if ('requestIdleCallback' in window) requestIdleCallback(work)
  else setTimeout(work, 50)
}
