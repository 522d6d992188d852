import { OpenedCollection } from '../frame/OpenedCollection'
import { Atlas } from './Atlas'

export default function AtlasPage({ collection }: { collection: string }) {
  return (
    <OpenedCollection collection={collection}>
      <Atlas />
    </OpenedCollection>
  )
}
