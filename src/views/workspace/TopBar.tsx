import { ActionIcon, Button, Menu, SegmentedControl, Tooltip } from '@mantine/core'
import {
  IconChevronDown,
  IconColumns2,
  IconFolderOpen,
  IconLayoutSidebar,
  IconLayoutSidebarRight,
  IconSearch,
  IconWorldUpload,
} from '@tabler/icons-react'
import { memo, Suspense, useCallback } from 'react'
import type { MapId } from '../../core/records/ids'
import { late } from '../app/late'
import { PersonMenu } from '../app/PersonMenu'
import type { CollectionSession } from '../sync/collection-session'
import { useCalmPart, useSessionHandle } from '../sync/use-session'
import { trailOf } from './trail'
import styles from './workspace.module.css'
import { FACES, faceNamed, useCalmWorkspace, workspace } from './workspace-store'

const NewComments = late(() => import('../comments/NewComments'))

export const TopBar = memo(() => {
  const session = useSessionHandle()
  const { panes, active, leftOpen, sheetOpen } = useCalmWorkspace()
  const pane = panes[active]
  const here = pane?.map
  const { title, trail } = useCalmPart(
    useCallback(
      (now: CollectionSession) => ({
        title: now.collection.title,
        trail: here ? trailOf(now, here).map((map) => ({ map, name: now.titleOf(map) })) : [],
      }),
      [here],
    ),
  )
  if (!pane) return null
  const isSheetShown = sheetOpen && pane.selected.length > 0
  const toggleSheet = () => {
    const root = session.records.root(pane.map)
    // With nothing selected there would be nothing to see.
    if (!isSheetShown && pane.selected.length === 0 && root) workspace.select(active, [root.id])
    workspace.openSheet(!isSheetShown)
  }
  return (
    <header className={styles.topBar}>
      <nav className={styles.trail} aria-label="Where this is">
        <Tooltip label="Surroundings">
          <ActionIcon
            variant="subtle"
            color="gray"
            c="var(--ink)"
            aria-pressed={leftOpen}
            onClick={() => workspace.openLeft(!leftOpen)}
            aria-label="Show or hide the surroundings"
          >
            <IconLayoutSidebar size={18} />
          </ActionIcon>
        </Tooltip>
        <Tooltip label={`All maps of ${title}`}>
          <ActionIcon
            variant="subtle"
            color="gray"
            c="var(--ink)"
            component="a"
            href={`/c/${session.id}`}
            aria-label="All maps"
            visibleFrom="xs"
          >
            <IconFolderOpen size={18} />
          </ActionIcon>
        </Tooltip>
        <ol>
          {trail.map(({ map, name }, i) => (
            <li key={map}>
              <a
                className={styles.crumb}
                href={`/c/${session.id}/m/${map}`}
                aria-current={i === trail.length - 1 ? 'page' : undefined}
                title={name}
                onClick={(event) => {
                  event.preventDefault()
                  workspace.go(active, map, null)
                }}
              >
                {name}
              </a>
            </li>
          ))}
        </ol>
        <Menu position="bottom-start" withinPortal>
          <Menu.Target>
            <ActionIcon variant="subtle" color="gray" c="var(--ink)" aria-label="Other maps">
              <IconChevronDown size={16} />
            </ActionIcon>
          </Menu.Target>
          <Menu.Dropdown mah={400} style={{ overflow: 'auto' }}>
            <Menu.Item component="a" href={`/c/${session.id}`} leftSection={<IconFolderOpen size={16} />}>
              All maps
            </Menu.Item>
            <OtherMaps here={pane.map} pane={active} />
          </Menu.Dropdown>
        </Menu>
      </nav>
      <SegmentedControl
        size="xs"
        data={FACES}
        value={pane.face}
        aria-label="Face of the map"
        onChange={(face) => workspace.setFace(active, faceNamed(face))}
      />
      <div className={styles.barEnd}>
        <Tooltip label={panes.length > 1 ? 'One pane' : 'Two panes'}>
          <ActionIcon
            variant={panes.length > 1 ? 'light' : 'subtle'}
            color={panes.length > 1 ? 'spruce' : 'gray'}
            c="var(--ink)"
            {...(panes.length > 1 ? {} : { visibleFrom: 'xs' })}
            aria-label={panes.length > 1 ? 'Back to one pane' : 'Open a second pane'}
            onClick={() => (panes.length > 1 ? workspace.closePane(1) : workspace.dialog({ kind: 'beside' }))}
          >
            <IconColumns2 size={18} />
          </ActionIcon>
        </Tooltip>
        <Tooltip label="Find anything (Ctrl + K)">
          <ActionIcon
            variant="subtle"
            color="gray"
            c="var(--ink)"
            aria-label="Find anything"
            onClick={() => workspace.dialog({ kind: 'find' })}
          >
            <IconSearch size={18} />
          </ActionIcon>
        </Tooltip>
        <Suspense>
          <NewComments />
        </Suspense>
        <Button
          size="compact-sm"
          variant="light"
          component="a"
          href={`/c/${session.id}/publish`}
          leftSection={<IconWorldUpload size={16} />}
          visibleFrom="xs"
        >
          Publish
        </Button>
        <PersonMenu />
        <Tooltip label="Topic sheet">
          <ActionIcon
            variant="subtle"
            color="gray"
            c="var(--ink)"
            aria-label="Show or hide the topic sheet"
            aria-pressed={isSheetShown}
            onClick={toggleSheet}
          >
            <IconLayoutSidebarRight size={18} />
          </ActionIcon>
        </Tooltip>
      </div>
    </header>
  )
})
TopBar.displayName = 'TopBar'

const mapsIn = (session: CollectionSession) => session.maps.filter((map) => !map.trashed)

/** The maps to which one can go, while they are asked for. */
function OtherMaps({ here, pane }: { here: MapId; pane: number }) {
  const maps = useCalmPart(mapsIn)
  return maps
    .filter(({ id }) => id !== here)
    .map(({ id, title }) => (
      <Menu.Item key={id} onClick={() => workspace.go(pane, id, null)}>
        {title}
      </Menu.Item>
    ))
}
