import snowball from 'snowball-stemmers'
import { Kept } from '../kept'

const english = snowball.newStemmer('english')
const kept = new Kept<string>(100_000)

/** The stem of a folded English word, by the Porter2 algorithm (Porter 2001, Snowball: a language for stemming algorithms). Other words stay nearly as they are. */
export const stemOf = (word: string): string => kept.get(word, () => english.stem(word))
