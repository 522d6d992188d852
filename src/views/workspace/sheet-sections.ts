/** The sections of the topic sheet that can be asked for. */
export const SECTIONS = ['note', 'links', 'files', 'marks', 'look', 'layout', 'dates', 'comments'] as const
export type Section = (typeof SECTIONS)[number]
