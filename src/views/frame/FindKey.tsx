import { Suspense, useEffect } from 'react'
import { create } from 'zustand'
import { late } from '../app/late'
import { capture } from '../capture/CaptureKey'
import type { Doable } from '../dialogs/FindDialog'
import { foundAddress, topicOfFound } from '../dialogs/found'
import { useSessionHandle } from '../sync/use-session'
import { awaitField } from '../workspace/awaited-field'
import { PLACES, placeAddress } from './places'

const FindDialog = late(() => import('../dialogs/FindDialog').then((module) => ({ default: module.FindDialog })))

const useFinder = create(() => ({ isOpen: false }))
const setOpen = (isOpen: boolean) => useFinder.setState({ isOpen })

/** Opens the dialog that finds anything, on the screens of a collection around its maps. */
export function findAnything(): void {
  if (useFinder.getState().isOpen) return
  awaitField('field')
  setOpen(true)
}

/** That dialog, and its key: what is found is seen on its map. */
export function FindKey() {
  const { id: collection } = useSessionHandle()
  const { isOpen } = useFinder()
  useEffect(() => {
    const press = (event: KeyboardEvent) => {
      if (!(event.ctrlKey || event.metaKey) || event.altKey || event.shiftKey || event.key.toLowerCase() !== 'k') return
      event.preventDefault()
      findAnything()
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
  ...PLACES.map(({ place, name, act }) => ({
    id: place,
    name: act,
    where: name,
    run: () => window.location.assign(placeAddress(collection, place)),
  })),
  { id: 'capture', name: 'Write down an idea', where: 'Alt+J', run: capture },
]
