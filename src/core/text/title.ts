/** The name that a text gives to a map: its first line without surrounding space, at most 500 code units. */
export const titleOf = (text: string): string => text.trim().split('\n', 1)[0]!.trim().slice(0, 500).toWellFormed()
