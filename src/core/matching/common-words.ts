/** English words that say next to nothing of what a text is about. */
export const COMMON_WORDS: ReadonlySet<string> = new Set(
  `a about above after again all also am an and any are as at be because been before being below between both but by can
  could did do does doing down during each etc few for from further get got had has have having he her here hers him his
  how i if in into is it its itself just let may me might more most must my no nor not now of off on once one only onto or
  other our ours out over own per shall she should so some such than that the their theirs them then there these they
  this those through to too under until up upon us very via was we were what when where which while who whom whose why
  will with within would you your yours`.split(/\s+/),
)
