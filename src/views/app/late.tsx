import { Alert, Button, Text } from '@mantine/core'
import { type ComponentType, use, useEffect, useState } from 'react'
import { Modal } from './Modal'

type Module<Props> = { default: ComponentType<Props> }
/** A part when it has come, or null where it could not be fetched. */
type Fetched<Props> = Promise<ComponentType<Props> | null>

/** How long after a failure a part is asked for once more by itself, in ms. */
const ONCE_MORE_MS = 400

/** Style sheets that could not be fetched are asked for again: what fetches parts asks for each once only. */
function fetchStylesAgain(): void {
  for (const link of document.querySelectorAll<HTMLLinkElement>('link[rel="stylesheet"]'))
    if (link.sheet === null) link.replaceWith(link.cloneNode())
}

/**
 * A part of the interface that is fetched when it is first shown. While it is on its way the nearest Suspense shows what stands for
 * it. Where it cannot be fetched, that is told in its place, with a way to try again, and everything else stands; when the connection
 * comes back it is tried again by itself. It differs from React's `lazy` in that: that one never asks twice.
 */
export function late<Props extends object>(load: () => Promise<Module<Props>>): ComponentType<Props> {
  let fetched: Fetched<Props> | null = null
  let here: ComponentType<Props> | null = null
  const fetch = (): Fetched<Props> => {
    const keep = (module: Module<Props>) => (here = module.default)
    const again = async () => {
      await new Promise((later) => setTimeout(later, ONCE_MORE_MS))
      fetchStylesAgain()
      return load()
    }
    fetched ??= load()
      .catch(again)
      .then(keep, () => null)
    return fetched
  }
  // biome-ignore lint/correctness/noComponentHookFactories: made once for each part, as its module is loaded.
  return function Late(props: Props) {
    const [, setTries] = useState(0)
    const Part = here ?? use(fetch())
    if (Part) return <Part {...props} />
    const retry = () => {
      fetchStylesAgain()
      fetched = null
      setTries((tries) => tries + 1)
    }
    return <Missing retry={retry} onClose={closeOf(props)} />
  }
}

/** What closes a dialog; undefined for what stands in the page. */
const closeOf = (props: object): (() => void) | undefined =>
  'onClose' in props && typeof props.onClose === 'function' ? (props.onClose as () => void) : undefined

/** Stands where a part could not be fetched: in its place, or as a dialog where the part is one. */
function Missing({ retry, onClose }: { retry(): void; onClose?: (() => void) | undefined }) {
  useEffect(() => {
    window.addEventListener('online', retry)
    return () => window.removeEventListener('online', retry)
  })
  const words = (
    <>
      <Text size="sm" mb="xs">
        This part of Folvet could not be fetched. Everything else goes on.
      </Text>
      <Button size="compact-sm" variant="default" onClick={retry}>
        Try again
      </Button>
    </>
  )
  if (onClose)
    return (
      <Modal opened onClose={onClose} title="Not here just now">
        {words}
      </Modal>
    )
  return (
    <Alert color="gray" m="xs" p="xs" role="alert">
      {words}
    </Alert>
  )
}
