import { useEffect, useRef } from 'react'
import styles from './page.module.css'
import { contentsOf, type Section } from './sections'

interface Props {
  sections: readonly Section[]
  inView: number
  go(at: number): void
}

/** The headings as a flight of steps beside the page, the one in view in bold. */
export function Contents({ sections, inView, go }: Props) {
  const list = useRef<HTMLOListElement>(null)
  const shown = contentsOf(sections, inView)
  const here = shown.findLast((at) => at <= inView)
  useEffect(() => {
    const step = list.current?.querySelector<HTMLElement>(`[data-at="${here}"]`)
    // Only the list moves: to scroll into view would move what is around it too.
    if (step && list.current) {
      const { scrollTop, clientHeight } = list.current
      const { offsetTop, offsetHeight } = step
      if (offsetTop < scrollTop || offsetTop + offsetHeight > scrollTop + clientHeight)
        list.current.scrollTop = offsetTop - clientHeight / 2
    }
  }, [here])
  return (
    <nav className={styles.contents} aria-label="Contents">
      <ol ref={list} tabIndex={0}>
        {shown.map((at) => {
          const { topic, level } = sections[at]!
          return (
            <li key={topic.id} data-at={at} style={{ paddingLeft: Math.min(level, 6) * 12 }}>
              <button type="button" aria-current={at === here ? 'location' : undefined} onClick={() => go(at)}>
                {topic.text || 'Untitled'}
              </button>
            </li>
          )
        })}
      </ol>
    </nav>
  )
}
