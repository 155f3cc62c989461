import { PLANES } from '../../memory/pool.ts';

/** Where the compiled module keeps nothing of its own. */
const START = 65536;
const PAGE = 65536;
/** A memory larger than this is not kept for the next call. */
const KEPT_BYTES = 64 * 2 ** 20;

/** Memory of a WASM instance, handed out from its start for one call of a kernel. */
export class Arena {
  readonly #memory: WebAssembly.Memory;
  #at = START;

  constructor(memory: WebAssembly.Memory) {
    this.#memory = memory;
  }

  /** Begins a call that takes this many bytes in all. */
  begin(bytes: number): void {
    this.#at = START;
    const missing = START + bytes + 64 - this.#memory.buffer.byteLength;
    if (missing > 0) this.#memory.grow(Math.ceil(missing / PAGE));
  }

  /** Room for this many bytes. */
  room(bytes: number): number {
    const at = this.#at;
    // SIMD likes whole vectors.
    this.#at = at + ((bytes + 15) & ~15);
    return at;
  }

  floats(values: Float32Array): number {
    const at = this.room(values.byteLength);
    new Float32Array(this.#memory.buffer, at, values.length).set(values);
    return at;
  }

  integers(values: Int32Array): number {
    const at = this.room(values.byteLength);
    new Int32Array(this.#memory.buffer, at, values.length).set(values);
    return at;
  }

  bytes(values: Uint8Array): number {
    const at = this.room(values.byteLength);
    new Uint8Array(this.#memory.buffer, at, values.length).set(values);
    return at;
  }

  /** A place to come back to: what was taken before it stays. */
  mark(): number {
    return this.#at;
  }

  /** Takes again from a mark on, this many bytes at most. */
  resume(mark: number, bytes: number): void {
    this.#at = mark;
    const missing = mark + bytes - this.#memory.buffer.byteLength;
    if (missing > 0) this.#memory.grow(Math.ceil(missing / PAGE));
  }

  /** Writes 64-bit floats at a place. */
  doubles(at: number, values: Float64Array): void {
    new Float64Array(this.#memory.buffer, at, values.length).set(values);
  }

  /** A copy of 64-bit floats that a kernel wrote. */
  doublesAt(at: number, length: number): Float64Array {
    return new Float64Array(this.#memory.buffer, at, length).slice();
  }

  /** Puts 64-bit floats that a kernel wrote into an array, from its start. */
  doublesInto(out: Float64Array, at: number, length: number): void {
    out.set(new Float64Array(this.#memory.buffer, at, length));
  }

  /** A copy of bytes that a kernel wrote. */
  bytesAt(at: number, length: number): Uint8Array {
    return new Uint8Array(this.#memory.buffer, at, length).slice();
  }

  /** Integers where they lie, until the memory grows. */
  integersAt(at: number, length: number): Int32Array {
    return new Int32Array(this.#memory.buffer, at, length);
  }

  /** Floats where they lie, until the memory grows. */
  view(at: number, length: number): Float32Array {
    return new Float32Array(this.#memory.buffer, at, length);
  }

  /** Codes of 8 or 16 bits where they lie, until the memory grows. */
  codes(at: number, length: number, bits: 8 | 16): Uint8Array | Uint16Array {
    const { buffer } = this.#memory;
    return bits === 8 ? new Uint8Array(buffer, at, length) : new Uint16Array(buffer, at, length);
  }

  /** A copy of floats that a kernel wrote. */
  read(at: number, length: number): Float32Array {
    const out = PLANES.take(length);
    out.set(this.view(at, length));
    return out;
  }

  /** Whether it has grown so large that it should be released. */
  get isLarge(): boolean {
    return this.#memory.buffer.byteLength > KEPT_BYTES;
  }
}
