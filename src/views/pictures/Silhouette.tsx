import { useMemo } from 'react'
import type { Records } from '../../core/records/records'
import { buildScene } from '../../core/scene/scene'
import { silhouetteOf } from '../../core/scene/silhouette'
import { useFonts } from '../app/late-parts'
import { Drawn } from '../stage/Drawn'
import styles from './pictures.module.css'

/** A map in its true shape, as large as the room for it. The records stay as they are: it is drawn anew only with others. */
export function Silhouette({ records, map }: { records: Records; map: string }) {
  const fonts = useFonts()
  const { drawing, bounds } = useMemo(() => {
    const scene = buildScene(records, map, { fonts, countTopics: () => 0 })
    return { drawing: silhouetteOf(scene), bounds: scene.layout.bounds }
  }, [records, map, fonts])
  const { x, y, width, height } = bounds
  const margin = Math.max(width, height) * 0.04
  return (
    <svg
      className={`scene ${styles.silhouette}`}
      viewBox={`${x - margin} ${y - margin} ${width + 2 * margin} ${height + 2 * margin}`}
      aria-hidden
    >
      <Drawn drawing={drawing} />
    </svg>
  )
}
