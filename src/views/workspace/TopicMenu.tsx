import { ActionIcon, Kbd, Menu } from '@mantine/core'
import { Fragment } from 'react'
import type { Act, Situation } from './act'
import { ACTS, readableKey } from './acts'

const GROUPS = ['topic', 'mark', 'move', 'shape', 'map'] as const

/** Everything that can be done to the selected topics, at the place where it was asked for. */
export function TopicMenu({
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
  const offered = ACTS.filter((act) => act.when(situation))
  const item = (act: Act) => (
    <Menu.Item
      key={act.id}
      color={act.id === 'delete' ? 'ember' : undefined}
      rightSection={act.keys[0] ? <Kbd size="xs">{readableKey(act.keys[0])}</Kbd> : null}
      onClick={() => {
        onClose()
        onDone()
        act.act(situation)
      }}
    >
      {act.name(situation)}
    </Menu.Item>
  )
  return (
    <Menu
      opened
      onClose={onClose}
      position="right-start"
      withinPortal
      width={300}
      returnFocus={false}
      onExitTransitionEnd={onDone}
      transitionProps={{ duration: 0 }}
    >
      <Menu.Target>
        <ActionIcon
          size={1}
          tabIndex={-1}
          style={{ position: 'fixed', left: at.x, top: at.y, opacity: 0 }}
          aria-label="What can be done"
        />
      </Menu.Target>
      <Menu.Dropdown mah="80vh" style={{ overflow: 'auto' }}>
        {GROUPS.map((group, i) => {
          const acts = offered.filter((act) => act.group === group)
          if (acts.length === 0) return null
          return (
            <Fragment key={group}>
              {i > 0 && <Menu.Divider />}
              {acts.map((act) => {
                if (!act.submenu) return item(act)
                const together = acts.filter((other) => other.submenu === act.submenu)
                if (together[0] !== act) return null
                return (
                  <Menu.Sub key={act.submenu}>
                    <Menu.Sub.Target>
                      <Menu.Sub.Item>{act.submenu}</Menu.Sub.Item>
                    </Menu.Sub.Target>
                    <Menu.Sub.Dropdown>{together.map(item)}</Menu.Sub.Dropdown>
                  </Menu.Sub>
                )
              })}
            </Fragment>
          )
        })}
      </Menu.Dropdown>
    </Menu>
  )
}
