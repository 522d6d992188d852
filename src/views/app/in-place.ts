import { create } from 'zustand'
import type { CollectionSession } from '../sync/collection-session'
import type { Workspace } from '../workspace/Workspace'
import { whenIdle } from './when-idle'

interface Opened {
  session: CollectionSession
  map: string
  /** What shows it: here already, as what React would wait for is shown a third of a second later. */
  Workspace: typeof Workspace
}

/** The map that has taken the place of the screen on which it was made, without a page being loaded; null as long as there is none. */
export const useOpened = create<{ opened: Opened | null }>(() => ({ opened: null }))

const fetchWorkspace = () => import('../workspace/Workspace')

/** Fetches ahead, when nothing else is to be done, what a map is shown with. */
export function fetchAhead(): void {
  whenIdle(() => void fetchWorkspace().catch(() => {}), 2_000)
}

/**
 * Shows a map of a session in place of this screen, and writes its address as a step of the way back. `begin` is what a new map waits
 * for: the words of its root, or what it should be about. Where what shows maps cannot be fetched, the page of the map is loaded.
 */
export async function openInPlace(
  session: CollectionSession,
  map: string,
  begin: 'root' | 'wish' | null = null,
): Promise<void> {
  const address = `/c/${session.id}/m/${map}${begin ? `?begin=${begin}` : ''}`
  const fetched = await fetchWorkspace().catch(() => null)
  if (!fetched) {
    await session.whenSaved()
    window.location.assign(address)
    return
  }
  window.history.pushState(null, '', address)
  useOpened.setState({ opened: { session, map, Workspace: fetched.Workspace } })
}
