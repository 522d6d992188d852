import metrics from './font-metrics.generated.json'
import { Fonts } from './measure'

/** The cuts that almost every map is set in; a browser has them from the start. */
export const COMMON_FONTS = new Fonts(metrics)
