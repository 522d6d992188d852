import metrics from './font-metrics.generated.json'
import { Fonts } from './measure'
import more from './more-font-metrics.generated.json'

/** All cuts that are shipped. A browser fetches those beyond the common ones when it needs them. */
export const ALL_FONTS = new Fonts({ ...metrics, ...more })
