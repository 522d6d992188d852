import type { Lexicon } from './lexicon'
import type { Match, TextTree } from './match-maps'
import { comparedText, nearWords } from './text-likeness'

const most = (part: number): string => (part >= 0.95 ? 'all' : part >= 0.75 ? 'most' : 'some')

/** Agreement below this is not worth a word. */
const WORTH_SAYING = 0.4

/** Why two topics are held to be the same, in words: `costs ≈ expenses; most of what is below them agrees`. */
export function whySame({ a, b, evidence }: Match, first: TextTree, second: TextTree, lexicon: Lexicon): string {
  const { text, parents, children, siblings, neighbours } = evidence
  const reasons: string[] = []
  if (text === 1) reasons.push('the same words')
  else {
    const [one, other] = [comparedText(first.texts[a]!), comparedText(second.texts[b]!)]
    const shared = one.words.filter(({ stem }) => other.words.some((word) => word.stem === stem))
    if (shared.length > 0) reasons.push(`both say ${shared.map(({ folded }) => folded).join(', ')}`)
    reasons.push(...nearWords(one, other, lexicon))
  }
  if (children !== null && children >= WORTH_SAYING) reasons.push(`${most(children)} of what is below them agrees`)
  if (siblings !== null && siblings >= WORTH_SAYING) reasons.push(`${most(siblings)} of what is beside them agrees`)
  if (neighbours >= 0.75 && a > 0) reasons.push('they stand between the same topics')
  if (reasons.length === 0)
    reasons.push(parents >= WORTH_SAYING ? 'they hang on the same topic' : 'what is around them agrees')
  return reasons.join('; ')
}
