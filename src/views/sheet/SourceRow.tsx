import { ActionIcon, Menu } from '@mantine/core'
import { IconDots } from '@tabler/icons-react'
import type { ReactNode } from 'react'
import { moveSource } from '../../core/commands/sources'
import type { ToldSource } from '../../core/network/sources'
import { ReadMark } from '../reading/ReadMark'
import { useMayEdit, useSessionHandle } from '../sync/use-session'
import styles from './sheet.module.css'

interface Props {
  source: ToldSource
  /** Its place among those of its kind on the topic, and how many these are. */
  at: number
  of: number
  icon: ReactNode
  /** Its name, which opens it. */
  children: ReactNode
  /** What else can be done, before and behind moving it. */
  first: ReactNode
  last: ReactNode
}

/** A file or web link of a topic: whether it is read, its name, and what can be done with it. */
export function SourceRow({ source, at, of, icon, children, first, last }: Props) {
  const session = useSessionHandle()
  const mayEdit = useMayEdit()
  const move = (to: number) => session.run((records, newIds) => moveSource(records, { source, to }, newIds))
  return (
    <li>
      <span className={styles.readMark} title={source.read ? 'Read' : 'Still to be read'}>
        <ReadMark source={source} isBare />
      </span>
      {icon}
      <span className={styles.grow}>{children}</span>
      <Menu position="bottom-end" transitionProps={{ duration: 0 }}>
        <Menu.Target>
          <ActionIcon variant="subtle" color="gray" size="sm" aria-label={`${source.name}: what can be done`}>
            <IconDots size={14} />
          </ActionIcon>
        </Menu.Target>
        <Menu.Dropdown>
          {first}
          {mayEdit && at > 0 && <Menu.Item onClick={() => move(at - 1)}>Move up</Menu.Item>}
          {mayEdit && at < of - 1 && <Menu.Item onClick={() => move(at + 1)}>Move down</Menu.Item>}
          {mayEdit && last}
        </Menu.Dropdown>
      </Menu>
    </li>
  )
}
