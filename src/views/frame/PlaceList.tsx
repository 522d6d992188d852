import { useQuery } from '@tanstack/react-query'
import { type Wait, Waiting, waitsOf } from '../../core/network/waiting'
import { ask } from '../app/api'
import { today } from '../app/when'
import { useSession, useSessionHandle } from '../sync/use-session'
import styles from './frame.module.css'
import { PLACES, type Place, placeAddress } from './places'

/** What waits in the open collection, and what was changed last in it; undefined until it is known. */
export function useWaiting(): Waiting | undefined {
  const { id } = useSessionHandle()
  return useQuery({
    queryKey: ['waiting', id],
    queryFn: () => ask(Waiting, `/api/collections/${id}/waiting?today=${today()}`),
  }).data
}

/** What waits at each place, in words. */
export function useWaits(): Wait[] {
  const waiting = useWaiting()
  return waiting ? waitsOf(waiting) : []
}

/** The places of the collection, one below the other, each with what waits there. */
export function PlaceList({ here }: { here: Place }) {
  const session = useSession()
  const waits = useWaits()
  const maps = session.maps.filter(({ trashed }) => !trashed).length
  return (
    <nav aria-label="Places of the collection">
      <ul className={styles.places}>
        {PLACES.map(({ place, name }) => {
          const wait = waits.find((each) => each.place === place)
          return (
            <li key={place}>
              <a
                href={placeAddress(session.id, place)}
                aria-current={place === here ? 'page' : undefined}
                title={wait?.words}
              >
                {name}
                {wait && place !== 'publish' && (
                  <span aria-hidden className={styles.waits}>
                    {wait.count}
                  </span>
                )}
                {wait && place === 'publish' && <span aria-hidden className={styles.dot} />}
                {place === 'maps' && (
                  <span aria-hidden className={styles.count}>
                    {maps}
                  </span>
                )}
              </a>
            </li>
          )
        })}
      </ul>
    </nav>
  )
}
