const LETTER = /\p{L}/u
const RIGHT_TO_LEFT =
  /[\p{Script=Hebrew}\p{Script=Arabic}\p{Script=Syriac}\p{Script=Thaana}\p{Script=Nko}\p{Script=Adlam}]/u

/** Whether a text reads from right to left, as its first letter says (Unicode Standard Annex 9, rules P2 and P3). */
export function isRightToLeft(text: string): boolean {
  const [first] = LETTER.exec(text) ?? []
  return first !== undefined && RIGHT_TO_LEFT.test(first)
}
