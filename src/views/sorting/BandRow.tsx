import { useDraggable, useDroppable } from '@dnd-kit/core'
import { ActionIcon, Menu, TextInput } from '@mantine/core'
import { IconDots, IconGripVertical } from '@tabler/icons-react'
import { memo, type ReactNode, useLayoutEffect, useRef } from 'react'
import { MAX_TITLE } from '../../core/records/text'
import type { TopicRecord } from '../../core/records/topic'
import styles from './sorting.module.css'

/** What can be done with a band. */
export interface BandActs {
  rename(text: string): void
  moveBy(step: -1 | 1): void
  joinInto(band: string): void
  dissolve(): void
  inside(band: string | null): void
}

interface Props {
  topic: TopicRecord
  level: number
  /** The digit that sends items here; null from the tenth band on. */
  digit: number | null
  /** The other bands, by id and name. */
  others: readonly { id: string; name: string }[]
  acts: BandActs
  mayEdit: boolean
  /** Whether its title is to be written now. */
  isNaming: boolean
  onNamed(): void
  children: ReactNode
}

/** A group on the table: its title at the left, what is in it beside that. */
export const BandRow = memo(({ topic, level, digit, others, acts, mayEdit, isNaming, onNamed, children }: Props) => {
  const field = useRef<HTMLInputElement>(null)
  // Before the next key comes, which is the first letter of the title.
  useLayoutEffect(() => {
    if (!isNaming || !field.current) return
    field.current.scrollIntoView({ block: 'nearest' })
    field.current.focus()
    field.current.select()
    onNamed()
  }, [isNaming, onNamed])
  const drop = useDroppable({ id: `into ${topic.id}` })
  const drag = useDraggable({ id: topic.id, disabled: !mayEdit })
  const name = topic.text || 'Untitled'
  return (
    <section
      ref={drop.setNodeRef}
      className={styles.band}
      style={{ marginLeft: Math.min(level, 6) * 28 }}
      data-over={drop.isOver || undefined}
      data-dragged={drag.isDragging || undefined}
      aria-label={`Band ${name}`}
    >
      <div className={styles.title}>
        <span ref={drag.setNodeRef} className={styles.grip} {...drag.listeners} aria-hidden>
          <IconGripVertical size={16} />
        </span>
        <span className={styles.digit} aria-hidden>
          {digit ?? ''}
        </span>
        <TextInput
          key={topic.text}
          ref={field}
          variant="unstyled"
          defaultValue={topic.text}
          aria-label={digit === null ? 'Title of this band' : `Title of band ${digit}`}
          readOnly={!mayEdit}
          data-title={topic.id}
          maxLength={MAX_TITLE}
          className={styles.field}
          onBlur={(event) => acts.rename(event.currentTarget.value)}
          onKeyDown={(event) => {
            event.stopPropagation()
            if (event.key === 'Escape') event.currentTarget.value = topic.text
            if (event.key === 'Enter' || event.key === 'Escape') event.currentTarget.blur()
          }}
        />
        {mayEdit && (
          <Menu position="bottom-start" width={260} withinPortal>
            <Menu.Target>
              <ActionIcon variant="subtle" color="gray" size="sm" aria-label={`What can be done with ${name}`}>
                <IconDots size={16} />
              </ActionIcon>
            </Menu.Target>
            <Menu.Dropdown mah="60vh" style={{ overflow: 'auto' }}>
              <Menu.Item onClick={() => acts.moveBy(-1)}>Move up</Menu.Item>
              <Menu.Item onClick={() => acts.moveBy(1)}>Move down</Menu.Item>
              <Menu.Item onClick={acts.dissolve}>Take its items out again</Menu.Item>
              {level > 0 && <Menu.Item onClick={() => acts.inside(null)}>Take out of the band around it</Menu.Item>}
              {others.length > 0 && <Menu.Label>Put inside</Menu.Label>}
              {others.map((other) => (
                <Menu.Item key={other.id} onClick={() => acts.inside(other.id)}>
                  {other.name}
                </Menu.Item>
              ))}
              {others.length > 0 && <Menu.Label>Join into</Menu.Label>}
              {others.map((other) => (
                <Menu.Item key={other.id} onClick={() => acts.joinInto(other.id)}>
                  {other.name}
                </Menu.Item>
              ))}
            </Menu.Dropdown>
          </Menu>
        )}
      </div>
      <div className={styles.items}>{children}</div>
    </section>
  )
})
BandRow.displayName = 'BandRow'
