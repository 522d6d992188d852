// In a layer: our own rules go before, in whichever order the sheets of a page are fetched.
import '@mantine/core/styles.layer.css'
import '@mantine/dates/styles.layer.css'
import '@mantine/notifications/styles.layer.css'
import '@fontsource/source-sans-3/400.css'
import '@fontsource/source-sans-3/400-italic.css'
import '@fontsource/source-sans-3/600.css'
import '@fontsource/source-sans-3/600-italic.css'
import '@fontsource/opendyslexic/latin-400.css'
import '@fontsource/opendyslexic/latin-700.css'
import '@fontsource/literata/400.css'
import '@fontsource/literata/400-italic.css'
import '@fontsource/literata/600.css'
import '@fontsource/literata/600-italic.css'
import '@fontsource/kalam/latin-400.css'
import '@fontsource/noto-emoji/400.css'
import '@fontsource/kalam/latin-ext-400.css'
import '@fontsource/kalam/latin-700.css'
import '@fontsource/kalam/latin-ext-700.css'
import '../../core/scene/scene.css'
import '../../core/scene/scene.generated.css'
import './app.css'
import { MantineProvider } from '@mantine/core'
import { Notifications } from '@mantine/notifications'
import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import type { ReactNode } from 'react'
import { Announcer } from './Announcer'
import { ApplySettings } from './ApplySettings'
import { LeaveField } from './LeaveField'
import { Boundary, TellMishaps } from './Mishaps'
import { ShownInPlace } from './ShownInPlace'
import { theme } from './theme'

const queries = new QueryClient({ defaultOptions: { queries: { retry: 1, staleTime: 2_000 } } })

/** What every screen stands in: theme, notices, and the cache of what was asked from the server. */
export function Providers({ children }: { children: ReactNode }) {
  return (
    <MantineProvider theme={theme} defaultColorScheme="auto">
      <QueryClientProvider client={queries}>
        <Notifications position="bottom-center" limit={3} />
        <TellMishaps />
        <Announcer />
        <ApplySettings />
        <LeaveField />
        <Boundary what="This page">
          <ShownInPlace>{children}</ShownInPlace>
        </Boundary>
      </QueryClientProvider>
    </MantineProvider>
  )
}
