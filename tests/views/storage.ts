/** A storage as a browser has one, empty, with room for so many letters. */
export function storageOfItsOwn(room = Number.POSITIVE_INFINITY): Storage {
  const items: Record<string, string> = {}
  const methods = {
    getItem: (name: string) => items[name] ?? null,
    setItem: (name: string, value: string) => {
      if (name.length + value.length > room) throw new DOMException('No room', 'QuotaExceededError')
      items[name] = value
    },
    removeItem: (name: string) => void delete items[name],
  }
  // Its names are its own, its methods are not, as with the browser's.
  return Object.setPrototypeOf(items, methods) as unknown as Storage
}
