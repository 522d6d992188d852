import { memo, useEffect } from 'react'
import type { TopicBox } from '../../core/layout/boxes'
import { toneClass } from '../../core/look/families'
import { putOriginsAway, recallOrigins, useOrigins } from '../merge/origins'
import styles from './stage.module.css'

/** Room between a topic and the bar that tells where it came from, and between two bars, in map units. */
const [BESIDE, WIDTH, GAP] = [3, 3, 2]

/** Bars at topics that came from other maps, in the hues of these. */
export const OriginMarks = memo(({ map, boxes }: { map: string; boxes: readonly TopicBox[] }) => {
  const origins = useOrigins(map)
  useEffect(() => recallOrigins(map), [map])
  if (!origins) return null
  return (
    <g aria-hidden>
      {boxes.flatMap((box) =>
        (origins.topics[box.topic.id] ?? []).map((number, i) => {
          const away = BESIDE + i * (WIDTH + GAP)
          const x = box.growsLeft ? box.x - away - WIDTH : box.x + box.width + away
          return (
            <rect
              key={`${box.key} ${number}`}
              x={x}
              y={box.y}
              width={WIDTH}
              height={box.height}
              className={`${styles.origin} ${toneClass('spruce', number % 8)}`}
            />
          )
        }),
      )}
    </g>
  )
})
OriginMarks.displayName = 'OriginMarks'

/** What the bars mean, and how they are put away. */
export function OriginLegend({ map }: { map: string }) {
  const origins = useOrigins(map)
  if (!origins) return null
  return (
    <div className={styles.legend} data-taken>
      <span>Came from</span>
      {origins.titles.map((title, i) => (
        <span key={title} className={styles.cameFrom}>
          <span className={`${styles.originBar} ${toneClass('spruce', (i + 1) % 8)}`} />
          {title || 'Untitled'}
        </span>
      ))}
      <button type="button" onClick={() => putOriginsAway(map)}>
        Put away
      </button>
    </div>
  )
}
