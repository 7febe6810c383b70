/**
 * What was worked out before, up to `most` of it: the oldest goes first. For core, which also runs in pages and workers
 * where a package for it would be a fortieth of all their scripts.
 * @example const kept = new Kept<string, Unit>(500); kept.of("sh=sh", () => make("sh=sh"))
 */
export class Kept<Key, Value> {
  private readonly values = new Map<Key, Value>();
  constructor(private readonly most: number) {}

  /** The value of a key; made by `make` when it is not there. */
  of(key: Key, make: () => Value): Value {
    const known = this.values.get(key);
    if (known !== undefined || this.values.has(key)) return known as Value;
    const value = make();
    if (this.values.size >= this.most) {
      const [oldest] = this.values.keys();
      this.values.delete(oldest as Key);
    }
    this.values.set(key, value);
    return value;
  }
}
