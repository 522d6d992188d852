/** The mark of an item of a list at the beginning of a line. */
const MARK = /^(?:[-*+•]|\d{1,9}[.)])[ \t]+/

/**
 * A pasted list as it is written behind `before`, what stands on the line up to the caret: its first item goes on where an item was
 * begun, else on a line of its own, the others below it on the level of that item. Null for what is no list, which is pasted as it is.
 * Linear.
 */
export function pastedList(before: string, pasted: string): string | null {
  const lines = pasted.replaceAll('\r\n', '\n').replace(/\n+$/, '').split('\n')
  const indentOf = (line: string) => /^[ \t]*/.exec(line)![0]
  const told = lines.filter((line) => line.trim() !== '')
  if (told.length === 0 || !MARK.test(told[0]!.trimStart())) return null
  const first = indentOf(told[0]!)
  const around = indentOf(before)
  const isBegun = before.trim() === '' || before.slice(around.length).replace(MARK, '').trim() === ''
  const hasMark = before.trim() !== ''
  const placed = told.map((line) => {
    const deeper = line.startsWith(first) ? line.slice(first.length) : line.trimStart()
    return around + deeper.replace(/^([ \t]*)(?:[*+•])(?=[ \t])/, '$1-')
  })
  if (!isBegun) return `\n${placed.join('\n')}`
  const rest = placed[0]!.slice(around.length)
  return [hasMark ? rest.replace(MARK, '') : rest, ...placed.slice(1)].join('\n')
}
