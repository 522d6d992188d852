import { countItems, type OutlineItem, outlineItem } from './outline'
import { readDocument } from './read-text'

/** A text file of an import, known by its path inside the imported folder. */
export interface Page {
  path: string
  text: string
}

/** The name of a file without its ending; of the page that stands for its folder the name of that one. */
export function fileTitle(path: string): string {
  const parts = path.split('/')
  const name = parts.at(-1)!.replace(/\.[^.]*$/, '')
  return /^(readme|index)$/i.test(name) ? (parts.at(-2) ?? name) : name
}

/** Reads a page as one tree: below its only heading, or below its name. `count` is how many items it has, 0 for a page without text. O(text). */
export function pageTree({ path, text }: Page): { top: OutlineItem; leftOut: string[]; count: number } {
  const { items, leftOut } = readDocument(text, path)
  const [only, ...others] = items
  const top = only && others.length === 0 ? only : { ...outlineItem(fileTitle(path)), children: items }
  return { top, leftOut, count: countItems(items) }
}
