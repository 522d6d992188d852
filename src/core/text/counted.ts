/** A number with what it counts: `1 map`, `3 maps`. */
export const counted = (count: number, one: string, many: string): string => `${count} ${count === 1 ? one : many}`
