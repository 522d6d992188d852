import { useIntersection } from '@mantine/hooks'
import { useQuery } from '@tanstack/react-query'
import { useEffect, useState } from 'react'
import { MapPeek } from '../../core/scene/thumbnail'
import { ask } from '../app/api'
import styles from './pictures.module.css'

/** What a map looks like and begins with, asked for once it is `wanted`. */
export const useMapPeek = (collection: string, map: string, version: string, wanted: boolean) =>
  useQuery({
    queryKey: ['thumbnail', collection, map, version],
    queryFn: () => ask(MapPeek, `/api/collections/${collection}/maps/${map}/thumbnail`),
    enabled: wanted,
    staleTime: Number.POSITIVE_INFINITY,
    retry: false,
  })

/** A map in its true shape, drawn on the server; fetched when it comes into view. `version` changes when the map may have. */
export function ThumbnailPicture({ collection, map, version }: { collection: string; map: string; version: string }) {
  const { ref, entry } = useIntersection<HTMLSpanElement>({ rootMargin: '200px' })
  const [seen, setSeen] = useState(false)
  useEffect(() => {
    if (entry?.isIntersecting) setSeen(true)
  }, [entry])
  const { data } = useMapPeek(collection, map, version, seen)
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
