declare module 'commonmark-spec' {
  export const tests: { markdown: string; html: string; section: string; number: number }[]
}
