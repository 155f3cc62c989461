/**
 * Steepest rise seen backwards along a line of heights, within a fixed reach, exactly: for each point k ≥
 * `reach` the largest (h[j] − h[k])/(k − j) over j = k−reach … k−1, or 0 where nothing rises.
 *
 * The window is cut at the borders of blocks as long as itself. What lies in the receiver's own block is a
 * convex hull grown point by point (Timonen & Westerholm 2010); what lies in the block before is a hull
 * built from its right end whose pushes are taken back one by one as the window moves on. So the answer
 * depends on the window alone and not on where the line was begun.
 */
export class HorizonLine {
  readonly reach: number;
  #hull: Int32Array;
  #tail: Int32Array;
  #tailSizes: Int32Array;
  #tailLost: Int32Array;

  constructor(reach: number) {
    this.reach = reach;
    this.#hull = new Int32Array(reach + 1);
    this.#tail = new Int32Array(reach + 1);
    this.#tailSizes = new Int32Array(reach);
    this.#tailLost = new Int32Array(reach);
  }

  /**
   * Writes the rises of points `reach` … `count`−1 of `heights` to `rises`; points marked in `silent` are
   * seen by others but get no rise of their own.
   */
  sweep(heights: Float64Array, count: number, rises: Float64Array, silent: Uint8Array): void {
    const { reach } = this;
    for (let start = reach; start < count; start += reach) {
      this.#block(heights, start, Math.min(reach, count - start), rises, silent);
    }
  }

  #block(
    heights: Float64Array,
    start: number,
    length: number,
    rises: Float64Array,
    silent: Uint8Array,
  ): void {
    const before = start - this.reach;
    const hull = this.#hull;
    const tail = this.#tail;
    let tailSize = this.#growTail(heights, before, start);
    let size = 0;
    for (let j = 0; j < length; j++) {
      const k = start + j;
      const h = heights[k];
      // Hull of the block before, seen from k: slopes rise to one summit, found by halving.
      let low = 0;
      let high = silent[k] ? 0 : tailSize - 1;
      while (low < high) {
        const m = (low + high) >> 1;
        const near = tail[m];
        const far = tail[m + 1];
        if ((heights[far] - h) * (k - near) >= (heights[near] - h) * (k - far)) low = m + 1;
        else high = m;
      }
      let best = (heights[tail[low]] - h) / (k - tail[low]);
      if (size > 0) {
        let top = (heights[hull[size - 1]] - h) / (k - hull[size - 1]);
        while (size > 1) {
          const second = (heights[hull[size - 2]] - h) / (k - hull[size - 2]);
          if (second < top) break;
          top = second;
          size--;
        }
        if (top > best) best = top;
      }
      hull[size++] = k;
      rises[k] = Math.max(0, best);
      tail[tailSize - 1] = this.#tailLost[j];
      tailSize = this.#tailSizes[j];
    }
  }

  /** Upper hull of `from` … `to`−1, pushed from the right, so that the leftmost point is on top. */
  #growTail(heights: Float64Array, from: number, to: number): number {
    const tail = this.#tail;
    let size = 0;
    for (let i = to - 1; i >= from; i--) {
      const h = heights[i];
      let m = size;
      while (m > 1) {
        const top = tail[m - 1];
        const second = tail[m - 2];
        if ((heights[top] - h) * (second - i) > (heights[second] - h) * (top - i)) break;
        m--;
      }
      this.#tailSizes[i - from] = size;
      this.#tailLost[i - from] = tail[m];
      tail[m] = i;
      size = m + 1;
    }
    return size;
  }
}
