/** A lexicon as it is stored: one entry a line, senses as numbers to the base of 36; see scripts/build-lexicon.ts. */
export interface LexiconData {
  /** The stem of a word, then its senses. */
  words: string
  /** Line n: the senses that are wider than, or nearly equal to, sense n. */
  wider: string
  /** The stems of two words that mean opposites. */
  opposites: string
  /** The stems of two words of which one is made of the other, where their beginnings do not tell. */
  derived: string
}

/** How near two words are that have a sense in common, that are made of one another, or of which one is wider. */
const SYNONYM = 0.9
const DERIVED = 0.85
const WIDER = 0.6

const NO_SENSES: readonly number[] = []

const linesOf = (text: string): string[] => (text === '' ? [] : text.split('\n'))

/** Which words of a language mean the same or nearly so. Words are asked for by their stems. */
export class Lexicon {
  private readonly senses = new Map<string, number[]>()
  private readonly wider: readonly (readonly number[])[]
  private readonly opposites = new Set<string>()
  private readonly derived = new Set<string>()

  constructor({ words, wider, opposites, derived }: LexiconData) {
    for (const line of linesOf(words)) {
      const [stem = '', ...senses] = line.split(' ')
      this.senses.set(
        stem,
        senses.map((sense) => Number.parseInt(sense, 36)),
      )
    }
    this.wider = wider
      .split('\n')
      .map((line) => (line === '' ? NO_SENSES : line.split(' ').map((n) => Number.parseInt(n, 36))))
    for (const [pairs, into] of [
      [opposites, this.opposites],
      [derived, this.derived],
    ] as const)
      for (const line of linesOf(pairs)) {
        const [a = '', b = ''] = line.split(' ')
        into.add(`${a} ${b}`).add(`${b} ${a}`)
      }
  }

  /** A lexicon that knows no word. */
  static readonly EMPTY = new Lexicon({ words: '', wider: '', opposites: '', derived: '' })

  areOpposite(a: string, b: string): boolean {
    return this.opposites.has(`${a} ${b}`)
  }

  sensesOf(stem: string): readonly number[] {
    return this.senses.get(stem) ?? NO_SENSES
  }

  /** Senses of a word and those a step wider: what other words must share to be near it. */
  sensesAround(stem: string): Set<number> {
    const own = this.sensesOf(stem)
    return new Set([...own, ...own.flatMap((sense) => this.wider[sense] ?? NO_SENSES)])
  }

  /** How near two words are, between 0 (nothing known) and 1 (one word). */
  nearness(a: string, b: string): number {
    if (a === b) return 1
    if (this.areOpposite(a, b)) return 0
    if (this.derived.has(`${a} ${b}`)) return DERIVED
    const [of, others] = [this.sensesOf(a), this.sensesOf(b)]
    if (of.some((sense) => others.includes(sense))) return SYNONYM
    const above = (senses: readonly number[], below: readonly number[]) =>
      below.some((sense) => this.wider[sense]?.some((each) => senses.includes(each)))
    return above(of, others) || above(others, of) ? WIDER : 0
  }
}
