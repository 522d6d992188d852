import { useIntersection } from '@mantine/hooks'
import { useQuery } from '@tanstack/react-query'
import { useEffect, useState } from 'react'
import { Thumbnail } from '../../core/scene/thumbnail'
import { ask } from '../app/api'
import styles from './pictures.module.css'

/** A map in its true shape, drawn on the server; fetched when it comes into view. `version` changes when the map may have. */
export function ThumbnailPicture({ collection, map, version }: { collection: string; map: string; version: string }) {
  const { ref, entry } = useIntersection<HTMLSpanElement>({ rootMargin: '200px' })
  const [seen, setSeen] = useState(false)
  useEffect(() => {
    if (entry?.isIntersecting) setSeen(true)
  }, [entry])
  const { data } = useQuery({
    queryKey: ['thumbnail', collection, map, version],
    queryFn: () => ask(Thumbnail, `/api/collections/${collection}/maps/${map}/thumbnail`),
    enabled: seen,
    staleTime: Number.POSITIVE_INFINITY,
    retry: false,
  })
  return (
    <span ref={ref} className={styles.thumbnail}>
      {data && (
        <svg className="scene" viewBox={`-6 -6 ${data.width + 12} ${data.height + 12}`} aria-hidden>
          <path d={data.lines} className={styles.thumbnailLines} />
          {data.bars.map(({ tone, d }) => (
            <path key={tone} d={d} className={`silhouette ${tone}`} />
          ))}
        </svg>
      )}
    </span>
  )
}
