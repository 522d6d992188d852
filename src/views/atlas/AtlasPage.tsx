import { Alert, Loader } from '@mantine/core'
import { wordsFor } from '../app/api'
import { PageFrame } from '../app/PageFrame'
import { Providers } from '../app/Providers'
import { SessionProvider, useStartedSession } from '../sync/use-session'
import { Atlas } from './Atlas'

export default function AtlasPage({ collection }: { collection: string }) {
  return (
    <Providers>
      <Loaded collection={collection} />
    </Providers>
  )
}

function Loaded({ collection }: { collection: string }) {
  const { session, error } = useStartedSession(collection)
  if (session)
    return (
      <SessionProvider value={session}>
        <Atlas />
      </SessionProvider>
    )
  return (
    <PageFrame trail={[]}>
      {error ? <Alert color="ember">{wordsFor(error)}</Alert> : <Loader aria-label="Opening the collection" />}
    </PageFrame>
  )
}
