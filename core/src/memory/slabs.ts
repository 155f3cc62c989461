/** A piece of a slab: a plane, two or four of them. */
interface Piece {
  slab: Float32Array;
  at: number;
  length: number;
}

/** Planes of the largest piece, which is a whole slab. */
const PLANES_EACH = 4;

/**
 * Memory for planes of one size, and for arrays as long as two or four of them, that are used again as soon as they are given back:
 * pieces are halved where smaller ones are wanted, and joined again (buddy system, Knowlton 1965). It is released as a whole, when
 * nobody holds it any more. For any other length a new array is made each time.
 */
export class Slabs {
  readonly #plane: number;
  readonly #free: Piece[] = [];
  #planes = 0;

  /** @param plane Values of a plane. */
  constructor(plane: number) {
    this.#plane = plane;
  }

  /** How many planes there is memory for by now. */
  get planes(): number {
    return this.#planes;
  }

  /** An array in which anything may stand. */
  take(length: number): Float32Array {
    if (![1, 2, PLANES_EACH].includes(length / this.#plane)) return new Float32Array(length);
    const { slab, at } = this.#piece(length);
    return slab.subarray(at, at + length);
  }

  /** Takes arrays back. Whoever gives them must be the last to hold them; what is of another memory is left alone. */
  give(...arrays: Float32Array[]): void {
    for (const { buffer, byteOffset, length } of arrays) {
      if (buffer.byteLength !== 4 * PLANES_EACH * this.#plane) continue;
      this.#put({ slab: new Float32Array(buffer), at: byteOffset / 4, length });
    }
  }

  #piece(length: number): Piece {
    const fitting = this.#free.filter((piece) => piece.length >= length);
    const least = fitting.reduce<Piece | null>(
      (best, piece) => (best && best.length <= piece.length ? best : piece),
      null,
    );
    if (!least) {
      this.#planes += PLANES_EACH;
      this.#free.push({
        slab: new Float32Array(PLANES_EACH * this.#plane),
        at: 0,
        length: PLANES_EACH * this.#plane,
      });
      return this.#piece(length);
    }
    this.#free.splice(this.#free.indexOf(least), 1);
    let piece = least;
    while (piece.length > length) {
      const half = piece.length / 2;
      this.#free.push({ ...piece, at: piece.at + half, length: half });
      piece = { ...piece, length: half };
    }
    return piece;
  }

  #put(piece: Piece): void {
    const { slab, at, length } = piece;
    const isSame = (other: Piece, from: number) =>
      other.slab.buffer === slab.buffer && other.at === from && other.length === length;
    const holds = (other: Piece) =>
      other.slab.buffer === slab.buffer && other.at <= at && at < other.at + other.length;
    if (this.#free.some(holds)) throw new Error('A plane was given back twice.');
    // The other half of the piece that it is a half of.
    const buddy = (at / length) % 2 === 0 ? at + length : at - length;
    const other = length < slab.length ? this.#free.findIndex((one) => isSame(one, buddy)) : -1;
    if (other < 0) this.#free.push(piece);
    else {
      this.#free.splice(other, 1);
      this.#put({ slab, at: Math.min(at, buddy), length: 2 * length });
    }
  }
}
