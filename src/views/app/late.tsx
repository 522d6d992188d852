import { Alert, Button, Text } from '@mantine/core'
import { type ComponentType, use, useEffect, useState } from 'react'
import styles from './late.module.css'
import { whenIdle } from './when-idle'

type Module<Props> = { default: ComponentType<Props> }
/** A part when it has come, or null where it could not be fetched. */
type Fetched<Props> = Promise<ComponentType<Props> | null>

/** Parts that are fetched before anybody asks for them. */
const ahead: (() => Promise<unknown>)[] = []

/** Fetches, one after the other and while the browser has nothing to do, what belongs to working on a map and is not shown at first. */
export function fetchParts(): void {
  const fetch = ahead.shift()
  if (fetch) whenIdle(() => void fetch().then(fetchParts))
}

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
 * comes back it is tried again by itself. It differs from React's `lazy` in that: that one never asks twice. Small parts that belong
 * to working on a map are fetched `soon`, so that they are here when the connection is not.
 */
export function late<Props extends object>(
  load: () => Promise<Module<Props>>,
  when: 'soon' | 'when shown' = 'when shown',
): ComponentType<Props> {
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
  // Where that comes to nothing it is asked for again when it is shown.
  if (when === 'soon')
    ahead.push(async () => {
      if ((await fetch()) === null) fetched = null
    })
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

const show = (dialog: HTMLDialogElement | null) => {
  if (dialog && !dialog.open) dialog.showModal()
}

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
      // The browser's own: the one of the interface may be what is missing.
      <dialog ref={show} className={styles.missing} aria-label="Not here just now" onClose={onClose}>
        {words}
        <Button size="compact-sm" variant="subtle" onClick={onClose}>
          Close
        </Button>
      </dialog>
    )
  return (
    <Alert color="gray" m="xs" p="xs" role="alert">
      {words}
    </Alert>
  )
}
