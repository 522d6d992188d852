/** All from one to another, both of them too, in the order in which they stand; the other alone where the first is not there. */
export function rangeBetween<Id extends string>(order: readonly Id[], from: Id | undefined, to: Id): Id[] {
  const [a, b] = [from === undefined ? -1 : order.indexOf(from), order.indexOf(to)]
  return a < 0 || b < 0 ? [to] : order.slice(Math.min(a, b), Math.max(a, b) + 1)
}
