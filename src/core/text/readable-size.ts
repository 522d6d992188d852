/** A size in bytes as a person reads it, in decimal units. */
export const readableSize = (bytes: number): string =>
  bytes < 1_000
    ? `${bytes} B`
    : bytes < 1_000_000
      ? `${(bytes / 1_000).toFixed(1)} kB`
      : `${(bytes / 1_000_000).toFixed(1)} MB`
