import { dequal } from 'dequal/lite'
import { createContext, useContext, useEffect, useRef, useState, useSyncExternalStore } from 'react'
import { CollectionSession } from './collection-session'

const SessionContext = createContext<CollectionSession | null>(null)
export const SessionProvider = SessionContext.Provider

/** Starts the session of a collection, where it has not begun on another screen; undefined while it loads. */
export function useStartedSession(
  collection: string,
  begun?: CollectionSession,
): { session?: CollectionSession; error?: unknown } {
  const [state, setState] = useState<{ session?: CollectionSession; error?: unknown }>(begun ? { session: begun } : {})
  useEffect(() => {
    if (begun) return
    CollectionSession.start(collection).then(
      (session) => setState({ session }),
      (error: unknown) => setState({ error }),
    )
  }, [collection, begun])
  return state
}

/** The session of the screen; the component is drawn anew with every change of what it holds. */
export function useSession(): CollectionSession {
  const session = useContext(SessionContext)
  if (!session) throw new Error('This component stands outside a collection.')
  useSyncExternalStore(session.subscribe, () => session.version)
  return session
}

/**
 * What a panel beside the map shows of the session, read a moment after each change. The panel is drawn anew only where that
 * is other than before. `read` is kept by whoever calls, as long as it reads the same.
 */
export function useCalmPart<Part>(read: (session: CollectionSession) => Part): Part {
  const session = useSessionHandle()
  const { calmVersion } = session
  const kept = useRef<{ version: number; read: typeof read; part: Part } | null>(null)
  return useSyncExternalStore(calmVersion.subscribe, () => {
    const version = calmVersion.snapshot()
    const before = kept.current
    if (before?.version === version && before.read === read) return before.part
    const part = read(session)
    kept.current = { version, read, part: before && dequal(before.part, part) ? before.part : part }
    return kept.current.part
  })
}

const mayEditIn = (session: CollectionSession): boolean => session.mayEdit

/** Whether this person may change the collection. */
export const useMayEdit = (): boolean => useCalmPart(mayEditIn)

/** The session without being drawn anew: for handlers. */
export function useSessionHandle(): CollectionSession {
  const session = useContext(SessionContext)
  if (!session) throw new Error('This component stands outside a collection.')
  return session
}
