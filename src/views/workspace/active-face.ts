/** The face of a map in the pane that had the keyboard last, else in any. */
export const activeFace = (): HTMLElement | null =>
  document.querySelector<HTMLElement>('[data-active="true"] :is([role="tree"], [data-face])') ??
  document.querySelector<HTMLElement>('main :is([role="tree"], [data-face])')
