import { useEffect, useState } from 'react'
import type { TopicBox } from '../../core/layout/boxes'
import { tellTrouble } from '../app/api'
import { PeekCard } from '../pictures/PeekCard'
import type { CollectionSession } from '../sync/collection-session'
import { workspace } from '../workspace/workspace-store'
import styles from './stage.module.css'

/** How long the pointer rests on a turned-down corner before what is behind it is shown, and how long it stays after, in ms. */
const [SHOWN_AFTER, STAYS_FOR] = [350, 250]

export interface Peeked {
  box: TopicBox
  /** Within the stage. */
  x: number
  y: number
}

/** Follows the pointer over turned-down corners: what is peeked into, and what keeps that open. */
export function usePeek(boxOf: (topic: string) => TopicBox | undefined) {
  const [over, setOver] = useState<Peeked | null>(null)
  const [peeked, setPeeked] = useState<Peeked | null>(null)
  useEffect(() => {
    if (over?.box.topic.id === peeked?.box.topic.id) return
    const timer = setTimeout(() => setPeeked(over), over ? SHOWN_AFTER : STAYS_FOR)
    return () => clearTimeout(timer)
  }, [over, peeked])
  const follow = (event: React.PointerEvent) => {
    const target = event.target as Element
    if (target.closest('[data-peek]')) {
      setOver(peeked)
      return
    }
    const id = target.closest('.behind') && target.closest('[data-topic]')?.getAttribute('data-topic')
    const box = id ? boxOf(id) : undefined
    const stage = event.currentTarget.getBoundingClientRect()
    const corner = target.closest('.behind')?.getBoundingClientRect()
    setOver(box?.topic.opensMap && corner ? { box, x: corner.left - stage.left, y: corner.bottom - stage.top } : null)
  }
  const end = () => {
    setOver(null)
    setPeeked(null)
  }
  return { peeked, follow, end }
}

const WIDTH = 272
const HEIGHT = 330

/** The card over a doorway. */
export function DoorwayPeek({
  session,
  peeked,
  index,
  isUnfolded,
  room,
  onEnd,
}: {
  session: CollectionSession
  peeked: Peeked
  index: number
  isUnfolded: boolean
  /** Of the stage, in px. */
  room: { width: number; height: number }
  onEnd(): void
}) {
  const { id, opensMap } = peeked.box.topic
  if (!opensMap) return null
  const left = Math.max(8, Math.min(peeked.x, room.width - WIDTH - 8))
  const above = peeked.y + HEIGHT > room.height
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
  return (
    <div
      className={styles.peek}
      data-peek
      data-taken
      style={above ? { left, bottom: room.height - peeked.y + 24 } : { left, top: peeked.y + 4 }}
    >
      <PeekCard map={opensMap} ways={session.isShut(opensMap) ? [] : ways} />
    </div>
  )
}
