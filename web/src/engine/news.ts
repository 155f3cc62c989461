/** Remembers from what things were made that were sent, so that the same is not sent again. */
export class News<K> {
  #known = new Map<K, Map<number, unknown[]>>();

  /** True, once, for what is new of `key` at a size. What was sent at larger sizes is then out of date. */
  is(key: K, size: number, ...from: unknown[]): boolean {
    const sizes = this.#known.get(key) ?? new Map<number, unknown[]>();
    this.#known.set(key, sizes);
    const last = sizes.get(size);
    if (last?.length === from.length && last.every((one, k) => one === from[k])) return false;
    for (const other of [...sizes.keys()]) if (other > size) sizes.delete(other);
    sizes.set(size, from);
    return true;
  }
}
