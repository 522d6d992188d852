import { useEffect, useSyncExternalStore } from 'react'
import { Icons } from '../../core/badges/badges'
import { COMMON_FONTS } from '../../core/text/common-fonts'
import type { Fonts } from '../../core/text/measure'

/** What most maps do with less of, and what is fetched when the first one needs more. */
class LatePart<Value extends { fellShort: boolean }> {
  private whole: Promise<void> | null = null
  private readonly listeners = new Set<() => void>()

  constructor(
    private value: Value,
    private readonly fetch: () => Promise<Value>,
  ) {}

  now = (): Value => this.value

  subscribe = (listener: () => void) => {
    this.listeners.add(listener)
    return () => this.listeners.delete(listener)
  }

  /** Fetches the whole where what is here did not do; once, and again after a failure. */
  complete(): void {
    if (this.whole || !this.value.fellShort) return
    this.whole = this.fetch().then(
      (value) => {
        this.value = value
        for (const listener of this.listeners) listener()
      },
      () => {
        this.whole = null
      },
    )
  }
}

const fonts = new LatePart<Fonts>(COMMON_FONTS, async () => (await import('../../core/text/all-fonts')).ALL_FONTS)
const icons = new LatePart(new Icons({}), async () => (await import('../../core/badges/all-icons')).ALL_ICONS)

function useLate<Value extends { fellShort: boolean }>(part: LatePart<Value>): Value {
  const value = useSyncExternalStore(part.subscribe, part.now, part.now)
  useEffect(() => part.complete())
  return value
}

/** The fonts to measure with: all of them once the first text is set in one that is not common. */
export const useFonts = (): Fonts => useLate(fonts)

/** The fonts that are here now. */
export const fontsHere = (): Fonts => fonts.now()

/** The icons to draw with: none until the first one was asked for. */
export const useIcons = (): Icons => useLate(icons)
