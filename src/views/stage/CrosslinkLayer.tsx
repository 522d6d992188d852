import { ActionIcon, Menu } from '@mantine/core'
import { useState } from 'react'
import { createPortal } from 'react-dom'
import type { Bounds } from '../../core/layout/boxes'
import type { CrosslinkLine } from '../../core/scene/crosslink-line'
import type { Scene } from '../../core/scene/scene'
import { LinkMenu } from '../sheet/LinkMenu'
import { useSession } from '../sync/use-session'
import { Drawn } from './Drawn'
import { inView } from './in-view'

/** Cross-links as lines; those drawn only while an end is selected are added then. A click on a line offers what can be done. */
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
  return (
    <g role="none" aria-hidden>
      {[...scene.crosslinks, ...passing].map((line) =>
        inView(line.bounds, view) ? (
          <g
            key={line.key}
            data-crosslink={line.link.id}
            data-lit={selected.has(line.link.from) || selected.has(line.link.to.id) || undefined}
            onClick={(event) => setAsked({ line, x: event.clientX, y: event.clientY })}
          >
            <Drawn drawing={line.drawing} />
          </g>
        ) : null,
      )}
      {asked &&
        session.mayEdit &&
        createPortal(
          <Menu opened onClose={() => setAsked(null)} position="bottom-start" withinPortal>
            <Menu.Target>
              <ActionIcon
                size={1}
                style={{ position: 'fixed', left: asked.x, top: asked.y, opacity: 0 }}
                aria-label="Cross-link"
              />
            </Menu.Target>
            <Menu.Dropdown>
              <LinkMenu link={session.records.get('crosslink', asked.line.link.id) ?? asked.line.link} isHere />
            </Menu.Dropdown>
          </Menu>,
          document.body,
        )}
    </g>
  )
}
