/** Values that are made once a key and kept, at most `most` of them: when there are more, all are forgotten and made anew. */
export class Kept<Value> {
  private readonly values = new Map<string, Value>()

  constructor(private readonly most: number) {}

  get(key: string, make: () => Value): Value {
    const known = this.values.get(key)
    if (known !== undefined) return known
    if (this.values.size >= this.most) this.values.clear()
    const made = make()
    this.values.set(key, made)
    return made
  }
}
