import { readIndentedText } from '../formats/indented-text'
import { type OutlineItem, outlineItem } from '../formats/outline'
import { readText } from '../formats/read-text'
import { TEMPLATES } from '../templates/templates'
import { contentWords, keyPhrases, stem } from './key-phrases'

/** What somebody wants branches for. */
interface DraftRequest {
  /** What they want, in their own words. May be empty where a text is given. */
  wish: string
  /** A text to draw on. May be empty. */
  text: string
  /** Topics of the collection that share words with the wish, nearest first, with what hangs below them. */
  related: readonly RelatedTopic[]
}

export interface RelatedTopic {
  id: string
  text: string
  children: readonly string[]
}

/** Somebody, or something, that proposes branches. What ships computes; a service could stand behind the same interface. */
export interface Proposer {
  /** Branches to start from, in order; none where nothing can be made of the request. */
  propose(request: DraftRequest): Promise<OutlineItem[]>
}

const MOST_BRANCHES = 7
const MOST_CHILDREN = 6
const MOST_RELATED = 4
/** Longest text of a proposed topic, in letters; what is longer stands in its note. */
const LONGEST = 70

const sentences = new Intl.Segmenter('en', { granularity: 'sentence' })

/** The computed proposer: structure and key phrases of the text, templates and the collection's own words for the wish. */
export const computedProposer: Proposer = {
  async propose({ wish, text, related }) {
    const fromText = text.trim() === '' ? [] : outlineOfText(text)
    return fromText.length > 0 ? fromText : wish.trim() === '' ? [] : outlineOfWish(wish, related)
  },
}

/** How much of a text is cut into sentences at once: each one holds on to all that it was cut from. */
const PIECE = 4_000

/** The sentences of a text, without empty ones. Linear; a piece ends where a sentence seems to. */
function sentencesOf(text: string): string[] {
  const found: string[] = []
  for (let start = 0; start < text.length; ) {
    let end = Math.min(text.length, start + PIECE)
    if (end < text.length) {
      const last = Math.max(text.lastIndexOf('. ', end), text.lastIndexOf('\n', end))
      const space = text.lastIndexOf(' ', end)
      end = last > start ? last + 1 : space > start ? space : end
    }
    for (const { segment } of sentences.segment(text.slice(start, end))) {
      const sentence = segment.split(/\s+/).join(' ').trim()
      if (sentence !== '') found.push(sentence)
    }
    start = end
  }
  return found
}

/** Branches of a text: those that its headings and lists make, else one for each of its key phrases with the sentences about it. */
function outlineOfText(text: string): OutlineItem[] {
  const { items, format } = readText(text)
  const isList = format === 'indented' && items.some(({ children }) => children.length > 0)
  if ((format === 'commonmark' && items.length > 1) || isList) return items.map(shortened)
  // A line break within a paragraph ends no sentence.
  const flowing = text.replace(/(\S)[ \t]*\r?\n[ \t]*(?=\S)/g, '$1 ')
  const all = sentencesOf(flowing)
  const most = Math.min(MOST_BRANCHES, Math.max(2, Math.round(Math.sqrt(all.length))))
  const branches = keyPhrases(text, most).map((phrase) => ({ phrase, item: outlineItem(capital(phrase.text)) }))
  for (const sentence of all) {
    const stems = new Set(contentWords(sentence))
    const share = (words: readonly string[]) => words.filter((word) => stems.has(word)).length / words.length
    const best = branches.reduce<(typeof branches)[number] | null>((found, branch) => {
      const fits = share(branch.phrase.stems)
      return fits > 0.5 && (!found || fits > share(found.phrase.stems)) ? branch : found
    }, null)
    if (best && best.item.children.length < MOST_CHILDREN) best.item.children.push(shortened(outlineItem(sentence)))
  }
  return branches.map(({ item }) => item).filter(({ children }) => children.length > 0)
}

/** An item whose text is short enough for a map; all of a longer one goes to the note. */
function shortened(item: OutlineItem): OutlineItem {
  const children = item.children.map(shortened)
  if (item.text.length <= LONGEST) return { ...item, children }
  const cut = item.text.slice(0, LONGEST).toWellFormed()
  const space = cut.lastIndexOf(' ')
  const text = `${(space > LONGEST / 2 ? cut.slice(0, space) : cut).replace(/[\s,;:–-]+$/, '')} …`
  return { ...item, text, note: item.note === '' ? item.text : `${item.text}\n\n${item.note}`, children }
}

/** Questions that any undertaking has to answer, for wishes about which nothing else is known. */
const QUESTIONS: readonly [string, readonly string[]][] = [
  ['What it is for', ['What is better afterwards', 'For whom']],
  ['What there is already', ['Known', 'Still to find out']],
  ['What has to be done', ['First', 'Then', 'At the end']],
  ['Who takes part', ['Who decides', 'Who helps']],
  ['What is needed', ['Things', 'Money', 'Time']],
  ['What could go wrong', ['Likely', 'Serious']],
]

/** Branches for a wish: what the collection knows about it, then the template whose words fit best, else open questions. */
function outlineOfWish(wish: string, related: readonly RelatedTopic[]): OutlineItem[] {
  const words = new Set(contentWords(wish))
  const known = related.slice(0, MOST_RELATED).map(({ id, text, children }): OutlineItem => {
    const below = children.slice(0, MOST_CHILDREN).map((child) => shortened(outlineItem(child)))
    return {
      ...shortened(outlineItem(text)),
      note: `See [${text.replace(/[[\]\\]/g, '')}](folvet:topic/${id})`,
      children: below,
    }
  })
  const fitting = TEMPLATES.map((template) => {
    const naming = contentWords(`${template.name} ${template.use} ${template.id}`)
    const inside = contentWords(template.text)
    const fits = 3 * naming.filter((word) => words.has(word)).length + inside.filter((word) => words.has(word)).length
    return { template, fits }
  }).sort((a, b) => b.fits - a.fits)[0]!
  const frame =
    fitting.fits >= 3
      ? readIndentedText(fitting.template.text.replaceAll(/ @\+\d+$/gm, ''))
      : QUESTIONS.map(([text, below]) => ({ ...outlineItem(text), children: below.map(outlineItem) }))
  const texts = new Set(known.map(({ text }) => stem(text)))
  return [...known, ...frame.filter(({ text }) => !texts.has(stem(text)))]
}

const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1)
