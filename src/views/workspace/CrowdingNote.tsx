import { useCallback, useState } from 'react'
import { isLegible, judge } from '../../core/crowding/legibility'
import { limitsOf } from '../../core/crowding/piece-cost'
import type { MapId } from '../../core/records/ids'
import { useFonts } from '../app/late-parts'
import type { CollectionSession } from '../sync/collection-session'
import { useCalmPart, useMayEdit } from '../sync/use-session'
import { declineReview, isReviewOffered } from './review-offer'
import styles from './workspace.module.css'
import { workspace } from './workspace-store'

/** How many topics a map has; where it is hard to read, the way to what could be split off. When such a map is met first, it says why. */
export function CrowdingNote({ map, count }: { map: MapId; count: number }) {
  const fonts = useFonts()
  const mayEdit = useMayEdit()
  const isCrowded = useCalmPart(
    useCallback(
      (session: CollectionSession) => {
        const topics = session.countTopics(map)
        const limits = limitsOf(session.records)
        // What is over the limit needs no drawing to tell.
        return (
          session.isOpen(map) &&
          (topics > limits.limit ||
            !isLegible(judge(session.records, map, { fonts, countTopics: session.countTopics }), limits))
        )
      },
      [map, fonts],
    ),
  )
  const [isOffered, setOffered] = useState(() => isReviewOffered(map))
  const take = () => {
    declineReview(map)
    setOffered(false)
  }
  const topics = count === 1 ? '1 topic' : `${count} topics`
  if (!isCrowded || !mayEdit) return <span>{isCrowded ? `${topics}, crowded` : topics}</span>
  const review = () => {
    workspace.dialog({ kind: 'split', map })
    take()
  }
  return (
    <span className={styles.crowding}>
      <button type="button" onClick={review}>
        <span className={styles.moreWords}>{topics}, </span>
        <span className={styles.warn}>crowded: review</span>
      </button>
      {isOffered && (
        <span className={styles.offer}>
          <span>It is hard to read as one map: see what could become maps of their own.</span>
          <button type="button" onClick={take}>
            Not now
          </button>
        </span>
      )}
    </span>
  )
}
