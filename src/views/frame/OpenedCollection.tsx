import { Alert, Loader } from '@mantine/core'
import { type ReactNode, useDeferredValue } from 'react'
import { wordsFor } from '../app/api'
import { Providers } from '../app/Providers'
import { CaptureKey } from '../capture/CaptureKey'
import { SessionProvider, useStartedSession } from '../sync/use-session'
import { FindKey } from './FindKey'
import { PageFrame } from './PageFrame'

/** A screen around the workspace that needs a collection: what it holds is there when the children are. */
export function OpenedCollection({ collection, children }: { collection: string; children: ReactNode }) {
  return (
    <Providers>
      <WhenStarted collection={collection}>{children}</WhenStarted>
    </Providers>
  )
}

function WhenStarted({ collection, children }: { collection: string; children: ReactNode }) {
  // Drawn in slices: a thousand maps at once would stand still.
  const { session, error } = useDeferredValue(useStartedSession(collection))
  if (session)
    return (
      <SessionProvider value={session}>
        {children}
        <CaptureKey />
        <FindKey />
      </SessionProvider>
    )
  return (
    <PageFrame trail={[]}>
      {error ? <Alert color="ember">{wordsFor(error)}</Alert> : <Loader aria-label="Opening the collection" />}
    </PageFrame>
  )
}
