/** Somebody who uses Folvet. Without an address they began without an account and are known by their cookie alone. */
export interface Person {
  id: string
  name: string
  address: string | null
}
