/** The face of a map in the pane that had the keyboard last, else in any. */
export const activeFace = (): HTMLElement | null =>
  document.querySelector<HTMLElement>('[data-active="true"] [role="tree"]') ??
  document.querySelector<HTMLElement>('main [role="tree"]')
