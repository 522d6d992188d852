declare module 'snowball-stemmers' {
  interface Stemmer {
    stem(word: string): string
  }
  const snowball: { newStemmer(language: 'english'): Stemmer }
  export default snowball
}
