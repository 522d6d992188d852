import { ActionIcon, Menu } from '@mantine/core'
import { useState } from 'react'
import { createPortal } from 'react-dom'
import { drawCrosslinks, removeCrosslinks } from '../../core/commands/crosslinks'
import type { Bounds } from '../../core/layout/boxes'
import type { CrosslinkLine } from '../../core/scene/crosslink-line'
import type { Scene } from '../../core/scene/scene'
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
              {(['line', 'quiet', 'selected'] as const).map((drawn) => (
                <Menu.Item
                  key={drawn}
                  disabled={!session.mayEdit || asked.line.link.drawn === drawn}
                  onClick={() =>
                    session.run((records, newIds) =>
                      drawCrosslinks(records, { crosslinks: [asked.line.link.id], drawn }, newIds),
                    )
                  }
                >
                  {
                    {
                      line: 'Draw as a line',
                      quiet: 'Make it quiet: a sign at both ends',
                      selected: 'Draw only while an end is selected',
                    }[drawn]
                  }
                </Menu.Item>
              ))}
              <Menu.Divider />
              <Menu.Item
                color="ember"
                disabled={!session.mayEdit}
                onClick={() =>
                  session.run((records, newIds) =>
                    removeCrosslinks(records, { crosslinks: [asked.line.link.id] }, newIds),
                  )
                }
              >
                Remove the cross-link
              </Menu.Item>
            </Menu.Dropdown>
          </Menu>,
          document.body,
        )}
    </g>
  )
}
