import type { Piece } from '../../core/text/word-difference'
import styles from './merge.module.css'

/** A text in which the words stand out that only it has. */
export const Pieces = ({ pieces }: { pieces: readonly Piece[] }) =>
  pieces.map(({ text, isOwn }, i) =>
    isOwn ? (
      // biome-ignore lint/suspicious/noArrayIndexKey: pieces have no other name than their place.
      <mark key={i} className={styles.own}>
        {text}
      </mark>
    ) : (
      text
    ),
  )
