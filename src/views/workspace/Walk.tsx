import { Button, CloseButton, Group, Paper, Text, Title } from '@mantine/core'
import { useWindowEvent } from '@mantine/hooks'
import { type KeyboardEvent, useEffect, useLayoutEffect, useRef, useState } from 'react'
import { backToFace } from './take-focus'
import styles from './walk.module.css'
import { workspace } from './workspace-store'

interface Stop {
  title: string
  words: string
  /** What is pointed at: the first of these that is seen. */
  at: string
}

const STOPS: readonly Stop[] = [
  {
    title: 'A map',
    words: 'One subject, seen at once. Choose a topic and type: Tab begins a child, Enter a sibling.',
    at: '[role="treeitem"][aria-level="1"]',
  },
  {
    title: 'Doorways',
    words: 'A turned-down corner opens a child map; the number tells how many topics are behind it. Press the corner.',
    at: '[role="treeitem"][aria-label*="opens a map"]',
  },
  {
    title: 'What can be done',
    words: 'Five groups, in the order of the work. Each shows what fits the topics that are selected.',
    at: '[data-strip]',
  },
  {
    title: 'Behind the words',
    words: 'Note, links, dates and files of the selected topic stand in its sheet.',
    at: '[aria-label="Show or hide the topic sheet"]',
  },
  {
    title: 'A web site',
    words: 'All maps, notes and files become a site that works anywhere, also from a disk.',
    at: 'a[href$="/publish"]',
  },
]

/** A short walk over what is really there, one stop at a time; `step` is null while it is only offered. Esc ends it. */
export default function Walk({ step }: { step: number | null }) {
  const end = () => {
    workspace.walk(null)
    backToFace()
  }
  return step === null ? <Offer end={end} /> : <StopCard key={step} step={step} end={end} />
}

function Offer({ end }: { end(): void }) {
  useWindowEvent('keydown', ({ key }) => key === 'Escape' && end())
  return (
    <Paper component="section" aria-label="A short walk" className={styles.offer} shadow="sm" withBorder>
      <Text size="sm">New here? Five stops show what is where.</Text>
      <Group gap={4}>
        <Button size="compact-xs" onClick={() => workspace.walk({ step: 0 })}>
          Walk through it
        </Button>
        <Button size="compact-xs" variant="subtle" color="gray" c="var(--quiet-ink)" onClick={end}>
          No, thanks
        </Button>
      </Group>
    </Paper>
  )
}

const CARD = { width: 300, height: 170 }
const GAP = 14

function StopCard({ step, end }: { step: number; end(): void }) {
  const { title, words, at } = STOPS[step]!
  const card = useRef<HTMLDivElement>(null)
  const target = useTarget(at)
  useEffect(() => card.current?.focus(), [])
  const isLast = step === STOPS.length - 1
  const go = (to: number) => (to >= STOPS.length ? end() : workspace.walk({ step: Math.max(0, to) }))
  const press = (event: KeyboardEvent) => {
    if (event.key === 'Escape') end()
    else if (event.key === 'ArrowRight') go(step + 1)
    else if (event.key === 'ArrowLeft') go(step - 1)
    else return
    event.preventDefault()
    event.stopPropagation()
  }
  return (
    <>
      {target && (
        <div
          className={styles.ring}
          style={{ left: target.x - 5, top: target.y - 5, width: target.width + 10, height: target.height + 10 }}
          aria-hidden
        />
      )}
      <Paper
        ref={card}
        className={styles.card}
        style={placeBeside(target)}
        role="dialog"
        aria-label={`Stop ${step + 1} of ${STOPS.length}: ${title}`}
        tabIndex={-1}
        onKeyDown={press}
        shadow="lg"
        p="md"
        withBorder
      >
        <Group justify="space-between" wrap="nowrap" align="flex-start">
          <Title order={2} size="h5">
            {title}
          </Title>
          <CloseButton size="sm" aria-label="End the walk" onClick={end} />
        </Group>
        <Text size="sm" mt={4}>
          {words}
        </Text>
        <Group justify="space-between" mt="sm">
          <Text size="sm" c="dimmed">
            {step + 1} of {STOPS.length}
          </Text>
          <Group gap="xs">
            {step > 0 && (
              <Button size="xs" variant="default" onClick={() => go(step - 1)}>
                Back
              </Button>
            )}
            <Button size="xs" onClick={() => go(step + 1)}>
              {isLast ? 'Begin' : 'Next'}
            </Button>
          </Group>
        </Group>
      </Paper>
    </>
  )
}

/** Where the first thing stands that a selector names and that is seen; null where there is none. Follows the window. */
function useTarget(selector: string): DOMRect | null {
  const [target, setTarget] = useState<DOMRect | null>(null)
  useLayoutEffect(() => {
    const look = () => {
      const rects = [...document.querySelectorAll(selector)].map((element) => element.getBoundingClientRect())
      const inside = (rect: DOMRect) =>
        rect.width > 0 &&
        rect.left >= 0 &&
        rect.top >= 0 &&
        rect.right <= window.innerWidth &&
        rect.bottom <= window.innerHeight
      setTarget(rects.find(inside) ?? null)
    }
    look()
    window.addEventListener('resize', look)
    return () => window.removeEventListener('resize', look)
  }, [selector])
  return target
}

/** Below what is pointed at, or above it where there is no room; in the middle where nothing is. */
function placeBeside(target: DOMRect | null): { left: number; top: number; width: number } {
  const width = Math.min(CARD.width, window.innerWidth - 2 * GAP)
  const [across, down] = [window.innerWidth - width - GAP, window.innerHeight - CARD.height - GAP]
  if (!target) return { left: across / 2, top: down / 2, width }
  const below = target.bottom + GAP
  return {
    left: Math.min(Math.max(target.left, GAP), across),
    top: below <= down ? below : Math.max(GAP, target.top - CARD.height - GAP),
    width,
  }
}
