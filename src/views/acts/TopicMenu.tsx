import { Kbd, Menu } from '@mantine/core'
import { IconChevronRight } from '@tabler/icons-react'
import { MenuAt } from '../app/MenuAt'
import { GROUPS, workspace } from '../workspace/workspace-store'
import { GROUP_NAMES, perform, type Situation } from './act'
import { keysOf, mostDone, readableKey } from './acts'

/** What is done most to the selected topics, at the place where it was asked for, and the way to everything else. */
export default function TopicMenu({
  at,
  situation,
  onClose,
  onDone,
}: {
  at: { x: number; y: number }
  situation: Situation
  onClose(): void
  onDone(): void
}) {
  const choose = (act: () => void) => () => {
    onClose()
    onDone()
    act()
  }
  return (
    <MenuAt
      at={at}
      label="What can be done"
      position="right-start"
      width={260}
      closeOnItemClick={false}
      returnFocus={false}
      onClose={choose(() => {})}
    >
      {mostDone(situation).map((act) => (
        <Menu.Item
          key={act.id}
          color={act.id === 'delete' ? 'ember' : undefined}
          rightSection={keysOf(act)[0] ? <Kbd size="xs">{readableKey(keysOf(act)[0]!)}</Kbd> : null}
          onClick={choose(() => perform(act, situation))}
        >
          {act.name(situation)}
        </Menu.Item>
      ))}
      <Menu.Divider />
      {GROUPS.map((group) => (
        <Menu.Item
          key={group}
          rightSection={<IconChevronRight size={14} aria-hidden />}
          onClick={choose(() => workspace.openGroup(group))}
        >
          {GROUP_NAMES[group]}
        </Menu.Item>
      ))}
    </MenuAt>
  )
}
