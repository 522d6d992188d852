import { ActionIcon, Kbd, Tooltip } from '@mantine/core'
import { useClickOutside } from '@mantine/hooks'
import { IconPin, IconPinFilled } from '@tabler/icons-react'
import { type CSSProperties, type KeyboardEvent, Suspense, useEffect, useRef, useState } from 'react'
import { foldForFinding } from '../../core/text/folding'
import { late } from '../app/late'
import { useSession } from '../sync/use-session'
import { situationOf } from '../workspace/situation'
import { type Group, useWorkspace, workspace } from '../workspace/workspace-store'
import { type Act, GROUP_NAMES, perform } from './act'
import { keysOf, readableKey, sectionsOf } from './acts'
import styles from './acts.module.css'

// What acts do, drawn small: the words are there at once, the drawings a moment later.
const Effect = late(() => import('./effects'), 'soon')

/** The acts of a group with their effects and keys. What does not apply stays, paler, and says why when it is pointed at. */
export function ActPanel({
  group,
  pinned,
  index,
  onClose,
}: {
  group: Group
  pinned: boolean
  index: number
  onClose(): void
}) {
  const session = useSession()
  useWorkspace()
  const situation = situationOf(session, index)
  const sections = sectionsOf(group)
  const [why, setWhy] = useState<string | null>(null)
  const menu = useRef<HTMLDivElement>(null)
  const outside = useClickOutside((event) => {
    const isOwn = (event.target as Element).closest('[data-strip], [role="dialog"], [data-portal]')
    if (!isOwn && !pinned) workspace.openGroup(null)
  })
  useEffect(() => menu.current?.querySelector<HTMLElement>('[role="menuitem"]')?.focus({ preventScroll: true }), [])

  const choose = (act: Act) => {
    const reason = act.whyNot(situation)
    if (reason !== null) return setWhy(reason)
    if (!pinned) onClose()
    perform(act, situation)
  }
  const walk = (event: KeyboardEvent) => {
    if (event.key === 'Escape') {
      event.preventDefault()
      return onClose()
    }
    const items = [...menu.current!.querySelectorAll<HTMLElement>('[role="menuitem"]')]
    const at = items.indexOf(document.activeElement as HTMLElement)
    const to = stepFrom(items, at, event)
    if (to === null) return
    event.preventDefault()
    event.stopPropagation()
    items[to]?.focus()
  }

  return (
    <div ref={outside} className={styles.panel} data-taken>
      <div
        ref={menu}
        className={styles.sections}
        role="menu"
        tabIndex={-1}
        aria-label={GROUP_NAMES[group]}
        onKeyDown={walk}
      >
        <div className={styles.columns} style={{ '--columns': Math.min(3, sections.length) } as CSSProperties}>
          {sections.map(({ section, acts }) => (
            // biome-ignore lint/a11y/useSemanticElements: a fieldset has no place in a menu.
            <div key={section} className={styles.section} role="group" aria-label={section}>
              <div className={styles.heading} aria-hidden>
                {section}
              </div>
              {acts.map((act) => {
                const reason = act.whyNot(situation)
                return (
                  <button
                    key={act.id}
                    type="button"
                    role="menuitem"
                    tabIndex={-1}
                    className={styles.act}
                    data-act={act.id}
                    data-lead={act.leads(situation)}
                    aria-disabled={reason !== null}
                    onClick={() => choose(act)}
                    onFocus={() => setWhy(reason)}
                    onPointerEnter={() => setWhy(reason)}
                  >
                    {acts.some(({ drawing }) => drawing) && (
                      <Suspense fallback={<span className={styles.effect} />}>
                        <Effect name={act.drawing} />
                      </Suspense>
                    )}
                    <span className={styles.name}>{act.name(situation)}</span>
                    {keysOf(act)[0] && <Kbd size="xs">{readableKey(keysOf(act)[0]!)}</Kbd>}
                  </button>
                )
              })}
            </div>
          ))}
        </div>
      </div>
      <div className={styles.foot}>
        <span className={styles.why} role="status">
          {why ?? ''}
        </span>
        <Tooltip label={pinned ? 'Let it close when something is done' : 'Keep it open'}>
          <ActionIcon
            variant={pinned ? 'light' : 'subtle'}
            color={pinned ? 'spruce' : 'gray'}
            c="var(--ink)"
            size="sm"
            aria-label="Keep it open"
            aria-pressed={pinned}
            onClick={() => workspace.pinGroup(!pinned)}
          >
            {pinned ? <IconPinFilled size={14} /> : <IconPin size={14} />}
          </ActionIcon>
        </Tooltip>
      </div>
    </div>
  )
}

/** Where a key leads among the acts: to the next or last one, to the nearest beside, or to the next that begins with a letter. */
function stepFrom(items: readonly HTMLElement[], at: number, { key }: KeyboardEvent): number | null {
  const count = items.length
  if (key === 'ArrowDown') return (at + 1) % count
  if (key === 'ArrowUp') return (at - 1 + count) % count
  if (key === 'Home') return 0
  if (key === 'End') return count - 1
  const here = items[at]?.getBoundingClientRect()
  if (here && (key === 'ArrowRight' || key === 'ArrowLeft')) {
    const sign = key === 'ArrowRight' ? 1 : -1
    let best = at
    let least = Number.POSITIVE_INFINITY
    items.forEach((item, i) => {
      const there = item.getBoundingClientRect()
      const away = (there.left - here.left) * sign
      const distance = away + Math.abs(there.top - here.top)
      if (away <= 1 || distance >= least) return
      least = distance
      best = i
    })
    return best
  }
  if (key.length !== 1 || key === ' ') return null
  const letter = foldForFinding(key)
  for (let step = 1; step <= count; step++) {
    const i = (at + step) % count
    if (foldForFinding(items[i]!.textContent ?? '').startsWith(letter)) return i
  }
  return null
}
