import { useComputedColorScheme } from '@mantine/core'
import { useMemo } from 'react'
import type { Scheme } from '../../core/look/palette'
import { Inks } from '../../core/scene/ink'

/** What is drawn with on a canvas: in the scheme of the map, or else of the application. */
export function useInks(ofMap: Scheme | null): Inks {
  const around = useComputedColorScheme('light')
  const scheme = ofMap ?? around
  return useMemo(() => new Inks(scheme), [scheme])
}
