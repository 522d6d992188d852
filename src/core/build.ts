/** Put in by the build: see astro.config.mjs. */
declare const __FOLVET_BUILD__: string | undefined

/** Which build this is, told by its sources; empty where nothing was built. */
export const BUILD: string = typeof __FOLVET_BUILD__ === 'string' ? __FOLVET_BUILD__ : ''

/** The header in which an answer of the server says which build it is of. */
export const BUILD_HEADER = 'X-Folvet-Build'
