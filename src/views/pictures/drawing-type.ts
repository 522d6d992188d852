/** What is carried while a drawing is dragged from the library: its name. */
export const DRAWING_TYPE = 'application/x-folvet-drawing'
