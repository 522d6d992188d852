import { useEffect } from 'react'

const REOPENED = 'folvet-merging'

/** A plan that was open when the page was left is open again when it comes back. */
export function useReopened(collection: string, target: string): void {
  useEffect(() => sessionStorage.setItem(REOPENED, `${collection} ${target}`), [collection, target])
}

export const forgetReopening = (): void => sessionStorage.removeItem(REOPENED)

/** Whether the plan of a merge into a map was open when the page was loaded again. */
export function wasMerging(collection: string, map: string): boolean {
  const [navigation] = performance.getEntriesByType('navigation') as PerformanceNavigationTiming[]
  return navigation?.type === 'reload' && sessionStorage.getItem(REOPENED) === `${collection} ${map}`
}
