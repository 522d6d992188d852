import { Menu } from '@mantine/core'
import { changeLook } from '../../core/commands/looks'
import { detachTopics } from '../../core/commands/places'
import { ConnectorForm } from '../../core/records/look'
import type { Situation } from '../acts/act'
import { composeAbove } from '../acts/compose'
import { MenuAt } from '../app/MenuAt'
import { CONNECTOR_NAMES } from '../sheet/look/names'
import { workspace } from '../workspace/workspace-store'
import type { ChosenConnector } from './connector-at'

/** What can be done to a connector: put a topic between, take the branch off, draw it in another way. */
export default function ConnectorMenu({
  chosen: { connector, child },
  at,
  situation,
  onClose,
}: {
  chosen: ChosenConnector
  at: { x: number; y: number }
  situation: Situation
  onClose(): void
}) {
  const { session, index } = situation
  const { parent } = connector
  const name = child.topic.text.slice(0, 40) || 'Untitled'
  const take = () => {
    const place = { topic: child.topic.id, at: { x: Math.round(child.x + 24), y: Math.round(child.y + 24) } }
    const select = session.run((records, newIds) => detachTopics(records, { topics: [place] }, newIds))
    if (select) workspace.select(index, select)
  }
  return (
    <MenuAt at={at} label={`Connector to ${name}`} onClose={onClose}>
      <Menu.Label>Connector to {name}</Menu.Label>
      <Menu.Item onClick={() => composeAbove(situation, [child.topic.id])}>Put a topic between</Menu.Item>
      <Menu.Item onClick={take}>Take the branch off</Menu.Item>
      <Menu.Divider />
      <Menu.Label>From {parent.topic.text.slice(0, 40) || 'Untitled'} on, drawn as</Menu.Label>
      {ConnectorForm.options.map((form) => (
        <Menu.Item
          key={form}
          disabled={parent.style.connector === form}
          onClick={() =>
            session.run((records, newIds) =>
              changeLook(
                records,
                { target: { kind: 'topics', topics: [parent.topic.id] }, set: { connector: form }, clear: [] },
                newIds,
              ),
            )
          }
        >
          {CONNECTOR_NAMES[form]}
        </Menu.Item>
      ))}
    </MenuAt>
  )
}
