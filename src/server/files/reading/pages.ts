/** Of a content so many pages are kept, of so many letters together. */
const [MOST_PAGES, MOST_LETTERS] = [2_000, 2_000_000]
/** Longest page, in letters: what has no pages is cut in parts of that length, so that a place in it can be told. */
export const MOST_OF_PAGE = 100_000

/** The pages of a text as they are read, as many as are kept. */
export class Pages {
  readonly texts: string[] = []
  private letters = 0

  get isRoom(): boolean {
    return this.texts.length < MOST_PAGES && this.letters < MOST_LETTERS
  }

  add(text: string): void {
    if (!this.isRoom) return
    const kept = text
      .slice(0, Math.min(MOST_OF_PAGE, MOST_LETTERS - this.letters))
      .replaceAll('\u0000', '')
      .toWellFormed()
    this.letters += kept.length
    this.texts.push(kept.trim())
  }
}
