import { Icons } from './badges'
import paths from './icon-paths.generated.json'

/** All icons that are shipped. A browser fetches them when the first badge is drawn. */
export const ALL_ICONS = new Icons(paths)

/** The names of all icons, in the order in which they are offered. */
export const ICON_NAMES: readonly string[] = Object.keys(paths)
