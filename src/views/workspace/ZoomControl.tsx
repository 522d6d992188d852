import { ActionIcon, Menu, UnstyledButton } from '@mantine/core'
import { IconMinus, IconPlus } from '@tabler/icons-react'
import { memo } from 'react'
import { useZoom } from './shown-stages'
import styles from './workspace.module.css'
import { workspace } from './workspace-store'

/** How large the map is shown, and what of it: out, in, and by its figure all the ways to fit it. */
export const ZoomControl = memo(({ index, selected }: { index: number; selected: number }) => {
  const scale = useZoom(index)
  const step = (where: 'in' | 'out', label: string) => (
    <ActionIcon
      variant="subtle"
      color="gray"
      size="sm"
      c="var(--ink)"
      aria-label={label}
      onClick={() => workspace.show(index, where)}
    >
      {where === 'in' ? <IconPlus size={14} /> : <IconMinus size={14} />}
    </ActionIcon>
  )
  return (
    <div className={styles.zoom}>
      {step('out', 'Smaller')}
      <Menu position="top-start" withinPortal>
        <Menu.Target>
          <UnstyledButton
            className={styles.figure}
            aria-label={`Shown at ${Math.round(scale * 100)} %: choose what to see`}
          >
            {Math.round(scale * 100)} %
          </UnstyledButton>
        </Menu.Target>
        <Menu.Dropdown>
          <Menu.Item onClick={() => workspace.show(index, 'all')} rightSection="Alt + F">
            The whole map
          </Menu.Item>
          <Menu.Item onClick={() => workspace.show(index, 'width')}>The whole width</Menu.Item>
          <Menu.Item onClick={() => workspace.show(index, 'selected')} disabled={selected === 0}>
            What is selected
          </Menu.Item>
          <Menu.Item onClick={() => workspace.show(index, 'full')}>100 %</Menu.Item>
        </Menu.Dropdown>
      </Menu>
      {step('in', 'Larger')}
      <button type="button" onClick={() => workspace.show(index, 'all')} title="Alt + F">
        Fit
      </button>
    </div>
  )
})
ZoomControl.displayName = 'ZoomControl'
