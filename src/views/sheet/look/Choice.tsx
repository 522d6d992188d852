import { ActionIcon, Text, Tooltip } from '@mantine/core'
import { IconArrowBackUp } from '@tabler/icons-react'
import { type ReactNode, useId } from 'react'
import type { Command } from '../../sync/trial'
import { useMayEdit, useSessionHandle } from '../../sync/use-session'
import styles from './look.module.css'
import { usePreviews } from './use-previews'

export interface Option {
  id: string
  name: string
  /** What is seen of it; without, its name. */
  picture?: ReactNode
  command: Command
}

/** The name of a part of a look, where its value comes from, and the way back to what is inherited. */
export function PartHead({ id, label, source, back }: { id?: string; label: string; source?: string; back?: Command }) {
  const session = useSessionHandle()
  const mayEdit = useMayEdit()
  return (
    <div className={styles.head}>
      <Text size="sm" fw={600} id={id}>
        {label}
      </Text>
      {source && (
        <Text size="xs" c="dimmed" className={styles.source}>
          {source}
        </Text>
      )}
      {back && mayEdit && (
        <Tooltip label={`${label}: take it back to what is inherited`}>
          <ActionIcon
            size="xs"
            variant="subtle"
            color="gray"
            aria-label={`${label}: take it back to what is inherited`}
            onClick={() => session.run(back)}
          >
            <IconArrowBackUp size={14} />
          </ActionIcon>
        </Tooltip>
      )}
    </div>
  )
}

/** A row of choices. Each is seen on the map while the pointer or the focus is on it, before it is taken. */
export function Choice({
  label,
  options,
  value,
  source,
  back,
  wide = false,
}: {
  label: string
  options: readonly Option[]
  value: string | null
  source?: string
  back?: Command
  wide?: boolean
}) {
  const session = useSessionHandle()
  const mayEdit = useMayEdit()
  const id = useId()
  const previews = usePreviews()
  return (
    // biome-ignore lint/a11y/useSemanticElements: a fieldset cannot be laid out as this row is.
    <div role="group" aria-labelledby={id}>
      <PartHead id={id} label={label} source={source} back={back} />
      <div className={wide ? styles.wide : styles.row} onPointerLeave={previews.leave}>
        {options.map((option) => (
          <button
            key={option.id}
            type="button"
            className={styles.option}
            disabled={!mayEdit}
            aria-pressed={value === option.id}
            aria-label={option.picture ? option.name : undefined}
            title={option.picture ? option.name : undefined}
            onPointerMove={previews.move(option.command)}
            onFocus={(event) => event.currentTarget.matches(':focus-visible') && session.preview(option.command)}
            onBlur={() => session.preview(null)}
            onClick={() => session.run(option.command)}
          >
            {option.picture ?? option.name}
          </button>
        ))}
      </div>
    </div>
  )
}
