import { useMediaQuery } from '@mantine/hooks'
import { type RefObject, useMemo } from 'react'
import { inkReader, type ReadInk } from './canvas-drawing'

/** A reader of tones for a canvas, made when it is first asked for and kept until the colour scheme changes. */
export function useInk(canvas: RefObject<HTMLCanvasElement | null>, scheme: 'light' | 'dark' | null): () => ReadInk {
  const dark = useMediaQuery('(prefers-color-scheme: dark)')
  // biome-ignore lint/correctness/useExhaustiveDependencies: another colour scheme gives other tones.
  return useMemo(() => {
    let reader: ReadInk | null = null
    return () => (reader ??= inkReader(canvas.current!.parentElement!))
  }, [canvas, dark, scheme])
}
