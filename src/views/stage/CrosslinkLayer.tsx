import { type PointerEvent, useRef, useState } from 'react'
import { createPortal } from 'react-dom'
import { bendCrosslink } from '../../core/commands/crosslink-forms'
import type { Bounds } from '../../core/layout/boxes'
import type { Point } from '../../core/records/place'
import { bendThrough, swingPath } from '../../core/scene/bent-line'
import type { CrosslinkLine } from '../../core/scene/crosslink-line'
import type { Scene } from '../../core/scene/scene'
import { MenuAt } from '../app/MenuAt'
import { LinkMenu } from '../sheet/LinkMenu'
import { useSession } from '../sync/use-session'
import { Drawn } from './Drawn'
import { inView } from './in-view'
import styles from './stage.module.css'

/** How far the pointer moves before a press bends a line, in px. */
const THRESHOLD = 5
/** So little aside of its ends, in px of the map, a line is not bent. */
const STRAIGHT = 6

/**
 * Cross-links as lines; those drawn only while an end is selected are added then. A click on a line offers what can be done; dragged,
 * it is bent.
 */
export function CrosslinkLayer({
  scene,
  view,
  selected,
}: {
  scene: Scene
  view: Bounds
  selected: ReadonlySet<string>
}) {
  const session = useSession()
  const [asked, setAsked] = useState<{ line: CrosslinkLine; x: number; y: number } | null>(null)
  const [bending, setBending] = useState<{ line: CrosslinkLine; from: Point; at: Point | null } | null>(null)
  /** Whether the press that ends now has bent a line: then it asks for nothing. */
  const wasBent = useRef(false)
  const passing: CrosslinkLine[] = []
  for (const id of selected) {
    for (const link of [...session.records.crosslinksFrom(id), ...session.records.crosslinksTo('topic', id)]) {
      if (link.drawn === 'line') continue
      for (const box of scene.layout.byKey.showing(link.from)) {
        const line = scene.lineOf(link, box)
        if (line) passing.push(line)
      }
    }
  }
  const begin = (event: PointerEvent<SVGGElement>, line: CrosslinkLine) => {
    if (event.button !== 0) return
    event.currentTarget.setPointerCapture(event.pointerId)
    setBending({ line, from: { x: event.clientX, y: event.clientY }, at: null })
  }
  const follow = (event: PointerEvent<SVGGElement>) => {
    if (!bending) return
    const { clientX, clientY } = event
    if (!bending.at && Math.hypot(clientX - bending.from.x, clientY - bending.from.y) < THRESHOLD) return
    const inverse = event.currentTarget.getScreenCTM()?.inverse()
    if (inverse) setBending({ ...bending, at: new DOMPoint(clientX, clientY).matrixTransform(inverse) })
  }
  const end = () => {
    setBending(null)
    if (!bending?.at) return
    wasBent.current = true
    setTimeout(() => {
      wasBent.current = false
    })
    const { link, ends } = bending.line
    const bend = bendThrough(bending.at, ...ends)
    session.run((records, newIds) =>
      bendCrosslink(records, { crosslink: link.id, bend: Math.abs(bend.aside) < STRAIGHT ? null : bend }, newIds),
    )
  }
  return (
    <g role="none" aria-hidden>
      {[...scene.crosslinks, ...passing].map((line) =>
        inView(line.bounds, view) ? (
          <g
            key={line.key}
            data-crosslink={line.link.id}
            data-lit={selected.has(line.link.from) || selected.has(line.link.to.id) || undefined}
            onPointerDown={(event) => session.mayEdit && begin(event, line)}
            onPointerMove={follow}
            onPointerUp={end}
            onPointerCancel={() => setBending(null)}
            onContextMenu={(event) => {
              event.preventDefault()
              setAsked({ line, x: event.clientX, y: event.clientY })
            }}
            onClick={(event) => {
              if (!wasBent.current) setAsked({ line, x: event.clientX, y: event.clientY })
            }}
          >
            <Drawn drawing={line.drawing} />
            {bending?.at && bending.line.key === line.key && (
              <path d={swingPath(...line.ends, bending.at)} className={styles.bending} />
            )}
          </g>
        ) : null,
      )}
      {asked &&
        session.mayEdit &&
        createPortal(
          <MenuAt at={asked} label="Cross-link" onClose={() => setAsked(null)}>
            <LinkMenu link={session.records.get('crosslink', asked.line.link.id) ?? asked.line.link} isHere />
          </MenuAt>,
          document.body,
        )}
    </g>
  )
}
