import { addOutlines } from './badges'
import paths from './icon-paths.generated.json'

/** Importing this makes the outlines of all icons known. Whoever draws once does so first; a browser when it needs them. */
addOutlines(paths)

/** The names of all icons, in the order in which they are offered. */
export const ICON_NAMES: readonly string[] = Object.keys(paths)
