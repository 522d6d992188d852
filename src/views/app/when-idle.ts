/** Does something when the browser has nothing else to do, but after `latest` ms at the latest; a moment later where it cannot tell. */
export function whenIdle(work: () => void, latest?: number): void {
  if ('requestIdleCallback' in window) requestIdleCallback(work, latest === undefined ? {} : { timeout: latest })
  else setTimeout(work, 50)
}
