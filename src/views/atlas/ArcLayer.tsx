import { memo, type RefObject, useEffect, useMemo, useState } from 'react'
import { type Atlas, LEAST_WIDTH, type Plate } from '../../core/network/atlas'
import styles from './atlas.module.css'

interface Props {
  atlas: Atlas
  /** Whether maps hang on those that open them, so that lines can run between the plates. */
  hasSteps: boolean
  /** The maps of which all cross-links are drawn, besides the one that is pointed at. */
  chosen: ReadonlySet<string>
  /** Is given what hears of the map that is pointed at. */
  pointer: RefObject<(map: string | null) => void>
  areAllDrawn: boolean
}

/** From maps to those that they open, and cross-links between maps as arcs: of what is looked at, or all. */
export const ArcLayer = memo(({ atlas, hasSteps, chosen, pointer, areAllDrawn }: Props) => {
  const [pointed, setPointed] = useState<string | null>(null)
  useEffect(() => {
    pointer.current = setPointed
  }, [pointer])
  const byId = useMemo(() => new Map(atlas.plates.map((plate) => [plate.map.id as string, plate])), [atlas])
  const doorways = useMemo(
    () =>
      atlas.plates.flatMap((plate) => {
        const parent = byId.get(plate.map.parentMap ?? '')
        return parent && hasSteps ? stepBetween(parent, plate) : []
      }),
    [atlas, byId, hasSteps],
  )
  const links = useMemo(() => {
    const seen = new Set<string>()
    return atlas.plates.flatMap((plate) =>
      plate.map.linked.flatMap(({ map, links: count }) => {
        const other = byId.get(map)
        const key = [plate.map.id, map].sort().join(' ')
        if (!other || seen.has(key)) return []
        seen.add(key)
        return [{ key, ends: [plate.map.id, map], count, path: arcBetween(plate, other) }]
      }),
    )
  }, [atlas, byId])
  return (
    <svg className={styles.arcs} width={atlas.width} height={atlas.height} aria-hidden>
      <path d={doorways.join('')} className={styles.doorway} />
      {links
        .filter(({ ends }) => areAllDrawn || ends.some((end) => end === pointed || chosen.has(end)))
        .map(({ key, path, count }) => (
          <path key={key} d={path} className={styles.arc} strokeWidth={Math.min(6, 1 + count / 2)} />
        ))}
    </svg>
  )
})
ArcLayer.displayName = 'ArcLayer'

/** From the right edge of a map to the top of one that hangs behind it, between the plates and through none. */
function stepBetween(from: Plate, to: Plate): string {
  const trunk = from.x + Math.max(from.side, LEAST_WIDTH) + BESIDE
  return `M${from.x + from.side} ${from.y + IN}H${trunk}V${to.y - ABOVE}H${to.x + IN}V${to.y}`
}

/** Where lines run: beside a plate, above one, and how far in they arrive. */
const [BESIDE, ABOVE, IN] = [32, 14, 24]

function arcBetween(from: Plate, to: Plate): string {
  const middle = ({ x, y, side }: Plate) => ({ x: x + side / 2, y: y + side / 2 })
  const [a, b] = [middle(from), middle(to)]
  const [across, down] = [b.x - a.x, b.y - a.y]
  return `M${a.x} ${a.y}Q${(a.x + b.x) / 2 + down / 4} ${(a.y + b.y) / 2 - across / 4} ${b.x} ${b.y}`
}
