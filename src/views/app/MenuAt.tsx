import { ActionIcon, Menu, type MenuProps } from '@mantine/core'
import { useEffect, useRef } from 'react'

interface Props extends Pick<MenuProps, 'position' | 'width' | 'closeOnItemClick' | 'returnFocus' | 'children'> {
  /** A point of the window, in px. */
  at: { x: number; y: number }
  /** What it is the menu of. */
  label: string
  onClose(): void
}

/** A menu at a point of the window, open as long as it is rendered: what it holds is rows of `Menu`. */
export function MenuAt({ at, label, position = 'bottom-start', children, onClose, ...others }: Props) {
  const close = useRef(onClose)
  close.current = onClose
  // It is seen a moment before it has the keyboard: Escape closes it then too.
  useEffect(() => {
    const press = (event: KeyboardEvent) => {
      if (event.key !== 'Escape' || (event.target instanceof Element && event.target.closest('[role="menu"]'))) return
      event.preventDefault()
      event.stopPropagation()
      close.current()
    }
    window.addEventListener('keydown', press, true)
    return () => window.removeEventListener('keydown', press, true)
  }, [])
  return (
    <Menu opened withinPortal position={position} transitionProps={{ duration: 0 }} onClose={onClose} {...others}>
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
}
