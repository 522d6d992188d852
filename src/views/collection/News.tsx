import { Anchor } from '@mantine/core'
import { Fragment } from 'react'
import { sayWhen } from '../app/when'
import { useWaiting, useWaits } from '../frame/PlaceList'
import { placeAddress } from '../frame/places'
import { useSession } from '../sync/use-session'
import styles from './collection.module.css'

/** Of so many maps it is told that they were changed. */
const MOST = 3

/** Two lines above the maps: what was changed last, and what would be worth doing now. */
export function News() {
  const session = useSession()
  const lately = useWaiting()?.lately.slice(0, MOST) ?? []
  const waits = useWaits()
  if (lately.length + waits.length === 0) return null
  return (
    <dl className={styles.news}>
      {lately.length > 0 && (
        <div>
          <dt>Changed last</dt>
          <dd>
            {lately.map(({ map, title, label, at }, index) => (
              <Fragment key={map}>
                {index > 0 && ' · '}
                <Anchor href={`/c/${session.id}/m/${map}`} title={label}>
                  {title || 'Untitled'}
                </Anchor>
                , {sayWhen(new Date(at))}
              </Fragment>
            ))}
          </dd>
        </div>
      )}
      {waits.length > 0 && (
        <div>
          <dt>Worth doing</dt>
          <dd>
            {waits.map(({ place, words }, index) => (
              <Fragment key={place}>
                {index > 0 && ' · '}
                <Anchor href={placeAddress(session.id, place)}>{words}</Anchor>
              </Fragment>
            ))}
          </dd>
        </div>
      )}
    </dl>
  )
}
