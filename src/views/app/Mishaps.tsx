import { Alert, Button, Group, Text } from '@mantine/core'
import { notifications } from '@mantine/notifications'
import { Component, type ErrorInfo, type ReactNode, useEffect } from 'react'

/** What went wrong, to be copied and handed on: nothing of what the person wrote is in it. */
const reportOf = (error: unknown): string =>
  [
    `Folvet, ${new Date().toISOString()}, ${window.location.pathname}`,
    navigator.userAgent,
    error instanceof Error ? (error.stack ?? error.message) : String(error),
  ].join('\n')

const CopyReport = ({ error }: { error: unknown }) => (
  <Button size="compact-sm" variant="default" onClick={() => void navigator.clipboard?.writeText(reportOf(error))}>
    Copy what happened
  </Button>
)

/** The same mishap is told once in so many ms. */
const AGAIN_MS = 10_000
/** Told by browsers where a layout takes a second turn: nothing is wrong then. */
const HARMLESS = /ResizeObserver loop/

/** Tells of an error that nobody expected: what was being done is not done, the rest stands. */
export function TellMishaps() {
  useEffect(() => {
    const told = new Map<string, number>()
    const tellOf = (error: unknown, message: string) => {
      const now = performance.now()
      if (HARMLESS.test(message) || now - (told.get(message) ?? Number.NEGATIVE_INFINITY) < AGAIN_MS) return
      told.set(message, now)
      notifications.show({
        color: 'ember',
        autoClose: 20_000,
        message: (
          <>
            <Text size="sm">
              Something went wrong in Folvet, and what you just did may not have been done. What was saved is still
              there.
            </Text>
            <CopyReport error={error} />
          </>
        ),
      })
    }
    const uncaught = (event: ErrorEvent) => tellOf(event.error ?? event.message, event.message)
    const rejected = ({ reason }: PromiseRejectionEvent) => tellOf(reason, String(reason))
    window.addEventListener('error', uncaught)
    window.addEventListener('unhandledrejection', rejected)
    return () => {
      window.removeEventListener('error', uncaught)
      window.removeEventListener('unhandledrejection', rejected)
    }
  }, [])
  return null
}

interface Props {
  /** What it is that could not be shown: the map, the topic sheet. */
  what: string
  children: ReactNode
}

/** Keeps a part that fails from taking everything else with it: in its place stands what happened, with a way to try again. */
export class Boundary extends Component<Props, { error: unknown }> {
  override state: { error: unknown } = { error: null }

  static getDerivedStateFromError(error: unknown) {
    return { error }
  }

  override componentDidCatch(error: unknown, { componentStack }: ErrorInfo): void {
    // Told on the console too, where whoever looks into it finds the parts around it.
    console.error(error, componentStack)
  }

  override render(): ReactNode {
    const { error } = this.state
    if (error === null) return this.props.children
    return (
      <Alert color="ember" m="md" title={`${this.props.what} cannot be shown just now`}>
        <Text size="sm" mb="xs">
          Everything else goes on, and nothing that was saved is lost.
        </Text>
        <Group gap="xs">
          <Button size="compact-sm" onClick={() => this.setState({ error: null })}>
            Try again
          </Button>
          <CopyReport error={error} />
        </Group>
      </Alert>
    )
  }
}
