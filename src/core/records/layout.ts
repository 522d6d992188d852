import { z } from 'zod'

/** How the children of a topic are set around it. A map has one kind; a branch can have one of its own. */
export const LayoutKind = z.enum(['both', 'right', 'left', 'down', 'up', 'around', 'indented', 'time'])
export type LayoutKind = z.infer<typeof LayoutKind>

/** How topics are numbered from their order; see `core/tree/numbering.ts`. */
export const NumberingScheme = z.enum(['decimal', 'turns', 'sections'])
export type NumberingScheme = z.infer<typeof NumberingScheme>
