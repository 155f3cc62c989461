interface Entry {
  value: unknown;
  bytes: number;
}

/** Bytes of all typed arrays within a value, each buffer counted once; functions are not looked into. */
export function bytesOf(value: unknown, seen: Set<unknown> = new Set()): number {
  if (!value || typeof value !== 'object' || seen.has(value)) return 0;
  seen.add(value);
  if (ArrayBuffer.isView(value)) return value.byteLength;
  let sum = 0;
  for (const inner of Object.values(value)) sum += bytesOf(inner, seen);
  return sum;
}

/** Results by key, the least recently used given up first once they hold more than `limit` bytes. */
export class Cache {
  #limit: number;
  #entries = new Map<string, Entry>();
  #bytes = 0;

  constructor(limit: number) {
    this.#limit = limit;
  }

  get limit(): number {
    return this.#limit;
  }

  /** A smaller limit gives up the least recently used at once. */
  set limit(bytes: number) {
    this.#limit = bytes;
    this.#giveUp(null);
  }

  get bytes(): number {
    return this.#bytes;
  }

  get<T>(key: string): T | undefined {
    const entry = this.#entries.get(key);
    if (!entry) return undefined;
    this.#entries.delete(key);
    this.#entries.set(key, entry);
    return entry.value as T;
  }

  set(key: string, value: unknown): void {
    const bytes = bytesOf(value);
    const old = this.#entries.get(key);
    if (old) this.#bytes -= old.bytes;
    this.#entries.delete(key);
    this.#entries.set(key, { value, bytes });
    this.#bytes += bytes;
    this.#giveUp(key);
  }

  #giveUp(spared: string | null): void {
    for (const [oldest, entry] of this.#entries) {
      if (this.#bytes <= this.#limit || oldest === spared) break;
      this.#entries.delete(oldest);
      this.#bytes -= entry.bytes;
    }
  }
}
