import { Kbd, Menu } from '@mantine/core'
import { removeEnclosure } from '../../core/commands/enclosures'
import { EnclosureId } from '../../core/records/ids'
import { perform, type Situation } from '../acts/act'
import { ACTS, keysOf, readableKey } from '../acts/acts'
import { composeLoose } from '../acts/compose'
import { MenuAt } from '../app/MenuAt'
import { pasteBranches } from '../workspace/clipboard'
import { useWorkspace, workspace } from '../workspace/workspace-store'
import { openEnclosure } from './open-enclosure'

/** Where on the surface a menu was asked for: in the window, on the map, and on which enclosure, if on one. */
export interface AskedOnSurface {
  window: { x: number; y: number }
  map: { x: number; y: number }
  enclosure: string | null
}

interface Row {
  name: string
  key?: string | undefined
  go(): void
}

/** Acts of the table that are done on the empty surface as well, as far as they apply. */
const ON_SURFACE = ['fit', 'view-back', 'select-all', 'to-place', 'undo', 'redo']
/** In a panel it stands below the heading that says so. */
const ALL = 'Select everything on the map'

/** What can be done where no topic is: on the empty surface of a map, or to an enclosure. */
export default function SurfaceMenu({
  asked,
  situation,
  onClose,
}: {
  asked: AskedOnSurface
  situation: Situation
  onClose(): void
}) {
  const { session, pane, index } = situation
  const { window: at, map } = asked
  const enclosure = asked.enclosure ? session.records.get('enclosure', asked.enclosure) : undefined
  const choose = (go: () => void) => () => {
    onClose()
    go()
  }
  const framed: Row[] = enclosure
    ? [
        { name: 'Its title, note and look …', go: () => openEnclosure(session, enclosure.id) },
        { name: 'Select what is inside', go: () => workspace.select(index, enclosure.topics) },
        {
          name: 'Take the frame away',
          go: () =>
            void session.run((records, newIds) =>
              removeEnclosure(records, { enclosure: EnclosureId.parse(enclosure.id) }, newIds),
            ),
        },
      ]
    : []
  const { carried } = useWorkspace.getState()
  const added: Row[] = session.mayEditMap(pane.map)
    ? [
        ...(pane.only
          ? []
          : [{ name: 'A new topic here', go: () => composeLoose(situation, Math.round(map.x), Math.round(map.y)) }]),
        ...(carried
          ? [
              {
                name: carried.cut ? 'Paste what was cut, below the root' : 'Paste what was copied, below the root',
                go: () => {
                  const root = session.records.root(pane.map)
                  if (root) pasteBranches(situation, carried.topics, root.id)
                },
              },
            ]
          : []),
      ]
    : []
  const known = ON_SURFACE.flatMap((id): Row[] => {
    const act = ACTS.find((each) => each.id === id)
    if (!act || act.whyNot(situation) !== null) return []
    return [
      { name: id === 'select-all' ? ALL : act.name(situation), key: keysOf(act)[0], go: () => perform(act, situation) },
    ]
  })
  const rows = (of: readonly Row[]) =>
    of.map(({ name, key, go }) => (
      <Menu.Item key={name} rightSection={key && <Kbd size="xs">{readableKey(key)}</Kbd>} onClick={choose(go)}>
        {name}
      </Menu.Item>
    ))
  return (
    <MenuAt
      at={at}
      label={enclosure ? 'The enclosure' : 'The map'}
      width={280}
      closeOnItemClick={false}
      returnFocus={false}
      onClose={onClose}
    >
      {enclosure && <Menu.Label>{enclosure.title || 'An enclosure'}</Menu.Label>}
      {rows(enclosure && session.mayEdit ? framed : framed.slice(1, 2))}
      {enclosure && <Menu.Divider />}
      {rows(added)}
      {rows(known)}
    </MenuAt>
  )
}
