import { lazy, Suspense, useEffect, useState } from 'react'
import { SCREENS_TO_GO_TO, screenAddress } from '../app/collection-screens'
import { capture } from '../capture/CaptureKey'
import { useSessionHandle } from '../sync/use-session'
import type { Doable } from './FindDialog'
import { foundAddress, topicOfFound } from './found'

const FindDialog = lazy(() => import('./FindDialog').then((module) => ({ default: module.FindDialog })))

/** The key for finding anything, on the screens of a collection around its maps: what is found is seen on its map. */
export function FindKey() {
  const { id: collection } = useSessionHandle()
  const [isOpen, setOpen] = useState(false)
  useEffect(() => {
    const press = (event: KeyboardEvent) => {
      if (!(event.ctrlKey || event.metaKey) || event.altKey || event.shiftKey || event.key.toLowerCase() !== 'k') return
      event.preventDefault()
      setOpen(true)
    }
    window.addEventListener('keydown', press)
    return () => window.removeEventListener('keydown', press)
  }, [])
  if (!isOpen) return null
  const go = (address: string) => window.location.assign(address)
  return (
    <Suspense>
      <FindDialog
        collection={collection}
        title="Find anything, go anywhere"
        leadsOn
        first={doableAround(collection)}
        onClose={() => setOpen(false)}
        onTake={(found) => go(foundAddress(collection, { ...found, topic: topicOfFound(found), page: null }))}
        onTakeBehind={(found) => go(foundAddress(collection, found))}
      />
    </Suspense>
  )
}

const doableAround = (collection: string): Doable[] => [
  ...SCREENS_TO_GO_TO.map(({ page, name, act }) => ({
    id: page,
    name: act,
    where: name,
    run: () => window.location.assign(screenAddress(collection, page)),
  })),
  { id: 'maps', name: 'See all maps in a table', where: 'Maps', run: () => window.location.assign(`/c/${collection}`) },
  { id: 'capture', name: 'Write down an idea', where: 'Alt+J', run: capture },
]
