import { type ReactNode, useEffect, useState } from 'react'
import type { TopicBox } from '../../core/layout/boxes'
import { tellTrouble } from '../app/api'
import { PeekCard } from '../pictures/PeekCard'
import type { CollectionSession } from '../sync/collection-session'
import { workspace } from '../workspace/workspace-store'
import styles from './stage.module.css'

/** How long the pointer rests on a turned-down corner before what is behind it is shown, and how long it stays after, in ms. */
const [SHOWN_AFTER, STAYS_FOR] = [350, 250]

/** What the signs that are looked at stand for. */
const PEEKED = { link: 'links', note: 'note', file: 'files' } as const
type PeekedSign = (typeof PEEKED)[keyof typeof PEEKED]

export interface Peeked {
  box: TopicBox
  /** What is looked at: the map behind its doorway, where its cross-links lead, what its note says, or its files by name. */
  what: 'doorway' | PeekedSign
  /** Within the stage. */
  x: number
  y: number
}

/** Follows the pointer over turned-down corners and signs of links, notes and files: what is looked at, and what keeps that open. */
export function usePeek(boxOf: (topic: string) => TopicBox | undefined) {
  const [over, setOver] = useState<Peeked | null>(null)
  const [peeked, setPeeked] = useState<Peeked | null>(null)
  useEffect(() => {
    if (over?.box.topic.id === peeked?.box.topic.id && over?.what === peeked?.what) return
    const timer = setTimeout(() => setPeeked(over), over ? SHOWN_AFTER : STAYS_FOR)
    return () => clearTimeout(timer)
  }, [over, peeked])
  const follow = (event: React.PointerEvent) => {
    const target = event.target as Element
    if (target.closest('[data-peek]')) {
      setOver(peeked)
      return
    }
    const corner = target.closest('.behind')
    const sign = target.closest('[data-sign="link"], [data-sign="note"], [data-sign="file"]')
    const at = corner ?? sign
    const id = at?.closest('[data-topic]')?.getAttribute('data-topic')
    const box = id ? boxOf(id) : undefined
    if (!at || !box || (corner && !box.topic.opensMap)) return setOver(null)
    const stage = event.currentTarget.getBoundingClientRect()
    const { left, bottom } = at.getBoundingClientRect()
    setOver({
      box,
      what: corner ? 'doorway' : PEEKED[sign?.getAttribute('data-sign') as keyof typeof PEEKED],
      x: left - stage.left,
      y: bottom - stage.top,
    })
  }
  const end = () => {
    setOver(null)
    setPeeked(null)
  }
  return { peeked, follow, end }
}

const WIDTH = 272
const HEIGHT = 330

/** What is behind a doorway, and the ways there. */
export function DoorwayPeek({
  session,
  peeked,
  index,
  isUnfolded,
  onEnd,
}: {
  session: CollectionSession
  peeked: Peeked
  index: number
  isUnfolded: boolean
  onEnd(): void
}) {
  const { id, opensMap } = peeked.box.topic
  if (!opensMap) return null
  const ways = [
    {
      name: 'Open',
      go: () => {
        onEnd()
        workspace.go(index, opensMap, null)
      },
    },
    {
      name: isUnfolded ? 'Fold away again' : 'Unfold here',
      go: () => {
        onEnd()
        if (!session.isOpen(opensMap)) session.openMap(opensMap).catch(tellTrouble)
        workspace.unfoldDoorway(index, id, !isUnfolded)
      },
    },
  ]
  return <PeekCard map={opensMap} ways={session.isShut(opensMap) ? [] : ways} />
}

/** The frame of what is looked at, where it finds room beside what it belongs to. */
export function PeekFrame({
  peeked,
  room,
  children,
}: {
  peeked: Peeked
  /** Of the stage, in px. */
  room: { width: number; height: number }
  children: ReactNode
}) {
  const left = Math.max(8, Math.min(peeked.x, room.width - WIDTH - 8))
  const isAbove = peeked.y + HEIGHT > room.height
  return (
    <div
      className={styles.peek}
      data-peek
      data-taken
      style={isAbove ? { left, bottom: room.height - peeked.y + 24 } : { left, top: peeked.y + 4 }}
    >
      {children}
    </div>
  )
}
