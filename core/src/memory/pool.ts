/** Bytes of planes that are kept to be written again. */
export const KEPT_BYTES = 96 * 2 ** 20;

/**
 * Planes that nobody reads any more, to be written again: a fresh one costs the first touch of its pages, and the
 * collector's work to be rid of it. One pool a thread.
 */
export class PlanePool {
  #free = new Map<number, Float32Array[]>();
  #bytes = 0;
  #taken = 0;
  #reused = 0;
  readonly #most: number;
  readonly #isShared: boolean;

  /**
   * @param most Bytes that are kept at most.
   * @param isShared Whether other threads see its planes.
   */
  constructor(most = KEPT_BYTES, isShared = false) {
    this.#most = most;
    this.#isShared = isShared;
  }

  /** Planes that were asked for, and how many of them were there already. */
  get used(): { taken: number; reused: number } {
    return { taken: this.#taken, reused: this.#reused };
  }

  /** A plane in which anything may stand. */
  take(length: number): Float32Array {
    this.#taken++;
    const plane = this.#free.get(length)?.pop();
    if (!plane && this.#isShared) return new Float32Array(new SharedArrayBuffer(4 * length));
    if (!plane) return new Float32Array(length);
    this.#reused++;
    this.#bytes -= plane.byteLength;
    return plane;
  }

  /** Lets go of all planes that wait to be written again. */
  empty(): void {
    this.#free.clear();
    this.#bytes = 0;
  }

  /** Takes planes back. Whoever gives them must be the last to hold them; none may be given twice. */
  give(...planes: Float32Array[]): void {
    for (const plane of planes) {
      // What lies in a part of a memory has other owners, and what is of the other kind another pool.
      const isMine = plane.buffer instanceof ArrayBuffer !== this.#isShared;
      if (!isMine || plane.byteLength !== plane.buffer.byteLength) continue;
      const free = this.#free.get(plane.length) ?? [];
      if (free.includes(plane)) throw new Error('A plane was given back twice.');
      if (this.#bytes + plane.byteLength > this.#most) continue;
      free.push(plane);
      this.#free.set(plane.length, free);
      this.#bytes += plane.byteLength;
    }
  }
}

/** The pool of this thread. */
export const PLANES = new PlanePool();
