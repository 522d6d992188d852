/** One line of the report. `limit` bounds `ratio` where there is a peer, else `value`. */
export interface Measurement {
  name: string
  value: number
  unit: string
  peer: string | null
  peerValue: number | null
  ratio: number | null
  limit: number | null
  ok: boolean
  note?: string
}

export function compare(args: {
  name: string
  value: number
  unit: string
  peer: string
  peerValue: number
  limit: number
  better: 'lower' | 'higher'
}): Measurement {
  const { better, ...rest } = args
  const ratio = args.value / args.peerValue
  return { ...rest, ratio, ok: better === 'lower' ? ratio <= args.limit : ratio >= args.limit }
}

export function median(values: readonly number[]): number {
  const sorted = [...values].sort((a, b) => a - b)
  return sorted[Math.floor(sorted.length / 2)]!
}

/** A repeatable source of numbers in [0, 1): mulberry32, Tommy Ettinger, 2017. */
export function seededRandom(seed: number): () => number {
  let state = seed >>> 0
  return () => {
    state = (state + 0x6d2b79f5) >>> 0
    let t = state
    t = Math.imul(t ^ (t >>> 15), t | 1)
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61)
    return ((t ^ (t >>> 14)) >>> 0) / 4_294_967_296
  }
}
