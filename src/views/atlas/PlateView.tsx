import { memo } from 'react'
import { limitsOf } from '../../core/crowding/piece-cost'
import { LEAST_WIDTH, type Plate } from '../../core/network/atlas'
import { ThumbnailPicture, useMapPeek } from '../pictures/ThumbnailPicture'
import { useSessionHandle } from '../sync/use-session'
import styles from './atlas.module.css'

interface Props {
  plate: Plate
  isHome: boolean
  isChosen: boolean
  isFaint: boolean
  /** Shapes and titles are there where they can be made out. */
  hasShape: boolean
  hasTitle: boolean
  /** How large the words of its first topics are set, in units of the sheet; null where it is seen from too far for them. */
  wordSize: number | null
  choose(map: string, isMore: boolean): void
  point(map: string | null): void
}

/** A map in the atlas: pressed, it is chosen, with Ctrl besides others; pressed twice or with Enter it opens. */
export const PlateView = memo(
  ({ plate, isHome, isChosen, isFaint, hasShape, hasTitle, wordSize, choose, point }: Props) => {
    const session = useSessionHandle()
    const { map, x, y, side } = plate
    const address = `/c/${session.id}/m/${map.id}`
    const { data } = useMapPeek(session.id, map.id, String(map.topics), wordSize !== null)
    const isCrowded = map.topics > limitsOf(session.records).limit || Boolean(data?.crowding)
    const said = [
      map.title || 'Untitled',
      isHome && 'home map',
      map.topics === 1 ? '1 topic' : `${map.topics} topics`,
      isCrowded && 'crowded',
      map.opens.length > 0 && (map.opens.length === 1 ? '1 map behind it' : `${map.opens.length} maps behind it`),
    ]
    return (
      <div
        className={styles.plate}
        data-map={map.id}
        style={{ left: x, top: y, width: side }}
        data-faint={isFaint || undefined}
      >
        <a
          href={address}
          draggable={false}
          className={styles.square}
          style={{ width: side, height: side, borderWidth: isCrowded ? 3 : 1 + Math.min(2, map.topics / 30) }}
          data-crowded={isCrowded || undefined}
          data-chosen={isChosen || undefined}
          aria-label={said.filter(Boolean).join(', ')}
          aria-current={isChosen || undefined}
          onPointerEnter={({ buttons }) => buttons === 0 && point(map.id)}
          onFocus={() => point(map.id)}
          onClick={(event) => {
            // With the keyboard, and the second time, it opens as any link does.
            if (event.detail !== 1 || event.shiftKey) return
            event.preventDefault()
            choose(map.id, event.ctrlKey || event.metaKey)
          }}
          onDoubleClick={() => window.location.assign(address)}
          onKeyDown={(event) => {
            if (event.key !== ' ') return
            event.preventDefault()
            choose(map.id, true)
          }}
        >
          {wordSize !== null && data && (
            <ul className={styles.first} style={{ fontSize: wordSize }} aria-hidden>
              {data.first.map(({ id, text }) => (
                <li key={id}>
                  <span data-topic={id}>{text || 'Untitled'}</span>
                </li>
              ))}
            </ul>
          )}
          {hasShape && (
            <span className={styles.shape}>
              <ThumbnailPicture collection={session.id} map={map.id} version={String(map.topics)} />
            </span>
          )}
          {map.opens.length > 0 && <span className={styles.corner}>{map.opens.length}</span>}
        </a>
        {hasTitle && (
          <span className={styles.title} style={{ width: Math.max(side, LEAST_WIDTH) }} aria-hidden>
            <span className={styles.words}>{map.title || 'Untitled'}</span>
            <small>{said.slice(1, 3).filter(Boolean).join(', ')}</small>
          </span>
        )}
      </div>
    )
  },
)
PlateView.displayName = 'PlateView'
