import { ActionIcon, Menu, type MenuProps } from '@mantine/core'

interface Props extends Pick<MenuProps, 'position' | 'width' | 'closeOnItemClick' | 'returnFocus' | 'children'> {
  /** A point of the window, in px. */
  at: { x: number; y: number }
  /** What it is the menu of. */
  label: string
  onClose(): void
}

/** A menu at a point of the window, open as long as it is rendered: what it holds is rows of `Menu`. */
export const MenuAt = ({ at, label, position = 'bottom-start', children, ...others }: Props) => (
  <Menu opened withinPortal position={position} transitionProps={{ duration: 0 }} {...others}>
    <Menu.Target>
      <ActionIcon
        size={1}
        tabIndex={-1}
        style={{ position: 'fixed', left: at.x, top: at.y, opacity: 0 }}
        aria-label={label}
      />
    </Menu.Target>
    <Menu.Dropdown>{children}</Menu.Dropdown>
  </Menu>
)
