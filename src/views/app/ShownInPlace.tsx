import { useQueryClient } from '@tanstack/react-query'
import { type ReactNode, useEffect } from 'react'
import { useOpened } from './in-place'

/** A screen, or the map that was opened in its place. */
export function ShownInPlace({ children }: { children: ReactNode }) {
  const { opened } = useOpened()
  const collection = opened?.session.id
  const queries = useQueryClient()
  // Who is here may be known only since: what was asked before is asked again.
  useEffect(() => {
    if (collection) void queries.invalidateQueries()
  }, [collection, queries])
  useEffect(() => {
    if (!collection) return
    // The way back leads to a screen that is not here any more.
    const back = () => {
      if (!window.location.pathname.startsWith(`/c/${collection}/m/`)) window.location.reload()
    }
    window.addEventListener('popstate', back)
    return () => window.removeEventListener('popstate', back)
  }, [collection])
  if (!opened) return children
  const { Workspace, session, map } = opened
  return <Workspace collection={session.id} map={map} session={session} />
}
