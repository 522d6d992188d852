import { curveBundle, line } from 'd3-shape'
import { memo, type RefObject, useEffect, useMemo, useState } from 'react'
import { type Atlas, type Plate, widthOf } from '../../core/network/atlas'
import { bundledWay } from '../../core/network/bundled-way'
import type { Arrangement } from './AtlasTools'
import styles from './atlas.module.css'

interface Props {
  atlas: Atlas
  /** Where maps hang on those that open them, lines run between the plates; elsewhere straight to them. */
  by: Arrangement
  /** The maps of which all cross-links are drawn, besides the one that is pointed at. */
  chosen: ReadonlySet<string>
  /** Is given what hears of the map that is pointed at. */
  pointer: RefObject<(map: string | null) => void>
  areAllDrawn: boolean
}

/** From maps to those that they open, and cross-links between maps as arcs: of what is looked at, or all. */
export const ArcLayer = memo(({ atlas, by, chosen, pointer, areAllDrawn }: Props) => {
  const [pointed, setPointed] = useState<string | null>(null)
  useEffect(() => {
    pointer.current = setPointed
  }, [pointer])
  const byId = useMemo(() => new Map(atlas.plates.map((plate) => [plate.map.id as string, plate])), [atlas])
  const doorways = useMemo(
    () =>
      atlas.plates.flatMap((plate) => {
        const parent = byId.get(plate.map.parentMap ?? '')
        return parent && by !== 'closeness' ? doorwayLine[by](parent, plate) : []
      }),
    [atlas, byId, by],
  )
  const links = useMemo(() => {
    const seen = new Set<string>()
    return atlas.plates.flatMap((plate) =>
      plate.map.linked.flatMap(({ map, links: count }) => {
        const other = byId.get(map)
        const key = [plate.map.id, map].sort().join(' ')
        if (!other || seen.has(key)) return []
        seen.add(key)
        return [
          { key, ends: [plate.map.id, map], count, path: arcBetween(bundledWay(plate, other, (id) => byId.get(id))) },
        ]
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
  const trunk = from.x + widthOf(from) + BESIDE
  return `M${from.x + from.side} ${from.y + IN}H${trunk}V${to.y - ABOVE}H${to.x + IN}V${to.y}`
}

/** Where lines run: beside a plate, above one, and how far in they arrive. */
const [BESIDE, ABOVE, IN] = [32, 14, 24]

const doorwayLine = {
  doorways: stepBetween,
  hand: (from: Plate, to: Plate) => `M${middle(from).join(' ')}L${middle(to).join(' ')}`,
}

const middle = ({ x, y, side }: Plate): [number, number] => [x + side / 2, y + side / 2]

/** How close arcs keep to the ways that they share: 0 straight, 1 along the ways. */
const BUNDLED = 0.85
const along = line().curve(curveBundle.beta(BUNDLED))

/** An arc from the first of these plates to the last, drawn towards those between; without any, bent to one side. */
function arcBetween(way: readonly Plate[]): string {
  const points = way.map(middle)
  const [[ax, ay], [bx, by]] = [points[0]!, points.at(-1)!]
  if (points.length === 2) points.splice(1, 0, [(ax + bx) / 2 + (by - ay) / 4, (ay + by) / 2 - (bx - ax) / 4])
  return along(points) ?? ''
}
