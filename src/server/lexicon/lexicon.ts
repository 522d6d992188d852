import { Lexicon } from '../../core/matching/lexicon'
import data from './wordnet.generated.json'

let made: Lexicon | null = null

/** The lexicon of English that ships with Folvet; see WORDNET-LICENSE.txt. Read once, when it is first asked for. */
export const english = (): Lexicon => (made ??= new Lexicon(data))
