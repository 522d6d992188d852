import type { ReactNode } from 'react'
import { LayoutKind } from '../../core/records/layout'
import { Silhouette } from '../pictures/Silhouette'
import { sampleOfLayout } from '../sheet/look/sample-map'
import styles from './acts.module.css'

/** A topic as a bar: what was there is quiet, what is new or altered stands out. */
const bar = (x: number, y: number, width: number, isNew = false, height = 4) => (
  <rect
    key={`${x} ${y}`}
    x={x}
    y={y}
    width={width}
    height={height}
    rx={1.5}
    className={isNew ? styles.new : styles.old}
  />
)
const line = (d: string, isNew = false) => <path key={d} d={d} className={isNew ? styles.newLine : styles.oldLine} />
const frame = (x: number, y: number, width: number, height: number, isNew = false) => (
  <rect
    key={`frame ${x} ${y}`}
    x={x}
    y={y}
    width={width}
    height={height}
    rx={3}
    className={isNew ? styles.newLine : styles.oldLine}
  />
)
/** A topic whose corner is turned down: it opens a map. */
const doorway = (x: number, y: number, width: number, isNew = false) => (
  <path
    key={`doorway ${x} ${y}`}
    d={`M${x} ${y}H${x + width - 4}L${x + width} ${y + 4}V${y + 7}H${x}Z`}
    className={isNew ? styles.new : styles.old}
  />
)

/** What acts do, drawn small: 48 × 32. Layouts are drawn from a real map, where they are asked for. */
const EFFECTS: Record<string, readonly ReactNode[]> = {
  child: [bar(3, 14, 16), line('M19 16H28', true), bar(28, 14, 17, true)],
  sibling: [line('M8 6V26M8 9H14M8 23H14'), bar(14, 7, 26), bar(14, 21, 26, true)],
  above: [
    bar(2, 14, 10),
    line('M12 16H18', true),
    bar(18, 14, 11, true),
    line('M29 16H35'),
    bar(35, 9, 11),
    bar(35, 19, 11),
  ],
  gather: [
    bar(3, 4, 12),
    bar(3, 14, 12),
    bar(3, 24, 12),
    line('M16 6L24 14M16 16H24M16 26L24 18', true),
    frame(27, 6, 19, 20, true),
    ...[10, 15, 20].map((y) => bar(30, y, 13, true, 3)),
  ],
  pour: [
    bar(3, 14, 12),
    ...[3, 10, 17, 24].map((y) => bar(26, y, 18, true)),
    line('M15 16H20M20 5V26M20 5H26M20 12H26M20 19H26M20 26H26'),
  ],
  heading: [
    bar(3, 14, 16, true),
    line('M19 16H25M25 8V24M25 8H29M25 16H29M25 24H29'),
    bar(29, 6, 15),
    bar(29, 14, 15),
    bar(29, 22, 15),
  ],
  beside: [line('M8 5V27M8 7H13M8 16H13M8 25H13'), bar(13, 5, 26), bar(13, 14, 20, true), bar(13, 23, 20, true)],
  join: [
    bar(3, 5, 15),
    bar(3, 14, 15),
    bar(3, 23, 15),
    line('M21 7L28 16M21 16H28M21 25L28 16'),
    bar(30, 13, 16, true, 6),
  ],
  unfoldMap: [
    doorway(2, 13, 14),
    line('M16 16H21M21 7V25M21 7H25M21 16H25M21 25H25', true),
    frame(23, 2, 23, 28),
    bar(26, 5, 14, true),
    bar(26, 14, 10, true),
    bar(26, 23, 14, true),
  ],
  splitCopies: [
    bar(3, 6, 12),
    line('M15 8H20'),
    bar(20, 6, 14),
    doorway(3, 20, 14, true),
    frame(24, 14, 21, 16, true),
    bar(28, 20, 12, true),
  ],
  splitEmpty: [bar(3, 6, 12), line('M15 8H20'), bar(20, 6, 14), doorway(3, 20, 14, true), frame(24, 14, 21, 16, true)],
  send: [
    frame(2, 4, 18, 24),
    bar(5, 10, 8),
    line('M15 16H27M24 13L27 16L24 19', true),
    frame(29, 4, 17, 24),
    bar(32, 18, 10, true),
  ],
  putAway: [
    bar(3, 6, 14),
    line('M17 8H23'),
    bar(23, 6, 12),
    line('M29 12V20M26 17L29 20L32 17', true),
    frame(3, 22, 42, 8),
    bar(22, 24, 14, true),
  ],
  sort: [
    bar(3, 4, 11, true),
    bar(18, 4, 12),
    bar(33, 4, 10),
    bar(3, 13, 11, true),
    bar(18, 13, 9),
    line('M3 22H45'),
    bar(3, 25, 9),
    bar(15, 25, 12),
    bar(30, 25, 9),
  ],
  detach: [
    bar(3, 6, 14),
    line('M17 8H23'),
    bar(23, 6, 12),
    bar(20, 21, 14, true),
    line('M34 23H38', true),
    bar(38, 21, 8, true),
  ],
  even: [
    frame(19, 11, 10, 10),
    ...[4, 14, 24].map((y) => bar(33, y, 12)),
    ...[4, 14].map((y) => bar(3, y, 12)),
    bar(3, 24, 12, true),
  ],
  fold: [bar(3, 14, 18), line('M21 16H27'), <circle key="folded" cx={31} cy={16} r={4} className={styles.newLine} />],
  split: [
    bar(3, 6, 10),
    line('M13 8H18'),
    doorway(18, 5, 14, true),
    frame(22, 17, 22, 13, true),
    bar(25, 20, 8, true, 3),
    bar(35, 20, 6, true, 3),
    bar(35, 25, 6, true, 3),
  ],
  review: [
    bar(3, 8, 10),
    bar(3, 15, 10),
    bar(3, 22, 10),
    line('M17 16H25M22 13L25 16L22 19'),
    frame(29, 4, 16, 11, true),
    frame(29, 18, 16, 11, true),
    bar(32, 8, 8, true, 3),
    bar(32, 22, 8, true, 3),
  ],
  back: [
    bar(3, 14, 10),
    line('M13 16H18M18 7V25M18 7H24M18 16H24M18 25H24', true),
    ...[5, 14, 23].map((y) => bar(24, y, 18, true)),
  ],
  open: [doorway(4, 12, 18), line('M26 16H40M36 12L40 16L36 20', true)],
  link: [
    bar(3, 6, 16),
    bar(28, 22, 16),
    <path key="link" d="M19 8C34 8 14 24 28 24" className={styles.newLine} strokeDasharray="3 2" />,
  ],
  tie: [
    bar(3, 4, 12),
    bar(33, 4, 12),
    bar(18, 24, 12),
    <path key="ties" d="M15 6H33M9 8L22 24M39 8L26 24" className={styles.newLine} strokeDasharray="3 2" />,
  ],
  splitRow: [
    bar(3, 4, 9),
    bar(3, 11, 9),
    bar(3, 18, 9),
    line('M14 13H21M18 10L21 13L18 16'),
    frame(24, 4, 21, 22, true),
    bar(27, 7, 9, true, 3),
    bar(34, 13, 8, true, 3),
    bar(34, 19, 8, true, 3),
  ],
  merge: [frame(3, 3, 16, 11), frame(3, 18, 16, 11), line('M21 9L27 16M21 24L27 16'), frame(29, 8, 17, 16, true)],
  panes: [frame(3, 5, 20, 22), frame(25, 5, 20, 22, true), bar(7, 13, 11), bar(29, 13, 11, true)],
  enclose: [frame(12, 4, 32, 24, true), bar(17, 9, 20), bar(17, 19, 20), line('M4 16H8M8 11V21M8 11H12M8 21H12')],
}

/** The drawing of an effect; an empty place of the same size without one. */
export default function Effect({ name }: { name: string | null }) {
  const layout = LayoutKind.options.find((kind) => name === `layout-${kind}`)
  if (layout)
    return (
      <span className={styles.effect}>
        <Silhouette {...sampleOfLayout(layout)} />
      </span>
    )
  return (
    <svg className={styles.effect} viewBox="0 0 48 32" aria-hidden>
      {name && EFFECTS[name]}
    </svg>
  )
}
