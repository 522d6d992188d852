import { create } from 'zustand'
import type { MapLayout } from '../../core/layout/boxes'

/** A stage as it is on the screen: for acts that need to know where things stand, and for dragging from pane to pane. */
export interface ShownStage {
  element: HTMLElement
  layout: MapLayout
  /** A point of the screen in map units. */
  pointAt(event: { clientX: number; clientY: number }): { x: number; y: number }
  /** Moves the view by px of the screen. */
  panBy(dx: number, dy: number): void
}

/** Maps with more topics have an overview. */
export const LARGE_MAP = 150

const shown = new Map<number, ShownStage>()

/** To be called with every layout that a stage shows, and with null when it goes. */
export function showStage(index: number, stage: ShownStage | null): void {
  if (stage) shown.set(index, stage)
  else shown.delete(index)
}

export const stageOf = (index: number): ShownStage | undefined => shown.get(index)

/** The stage under a point of the screen. */
export function stageAt(event: { clientX: number; clientY: number }): { index: number; stage: ShownStage } | null {
  for (const [index, stage] of shown) {
    const { left, top, right, bottom } = stage.element.getBoundingClientRect()
    if (event.clientX >= left && event.clientX < right && event.clientY >= top && event.clientY < bottom)
      return { index, stage }
  }
  return null
}

/** The scale at which the stage of a pane rests: 1 shows texts in their own size. */
const useZooms = create<Record<number, number>>(() => ({}))

export const setZoom = (index: number, scale: number): void => useZooms.setState({ [index]: scale })
export const useZoom = (index: number): number => useZooms((zooms) => zooms[index] ?? 1)
