const FIRST_CAPACITY = 4096;

/**
 * A heap of nodes by cost with four children a place, in typed arrays that grow. There is no decrease: who puts a
 * node in again at a lower cost skips the stale one. `pop` sets `node` and `cost`.
 */
export class NodeHeap {
  node = -1;
  cost = 0;
  #nodes = new Int32Array(FIRST_CAPACITY);
  #costs = new Float64Array(FIRST_CAPACITY);
  #size = 0;

  push(node: number, cost: number): void {
    if (this.#size === this.#nodes.length) this.#grow();
    const nodes = this.#nodes;
    const costs = this.#costs;
    let i = this.#size++;
    while (i > 0) {
      const up = (i - 1) >> 2;
      if (costs[up] <= cost) break;
      nodes[i] = nodes[up];
      costs[i] = costs[up];
      i = up;
    }
    nodes[i] = node;
    costs[i] = cost;
  }

  /** Takes the cheapest out; false where there is none. */
  pop(): boolean {
    if (this.#size === 0) return false;
    const nodes = this.#nodes;
    const costs = this.#costs;
    this.node = nodes[0];
    this.cost = costs[0];
    const n = --this.#size;
    const node = nodes[n];
    const cost = costs[n];
    let i = 0;
    for (;;) {
      let child = 4 * i + 1;
      if (child >= n) break;
      const last = Math.min(child + 4, n);
      for (let k = child + 1; k < last; k++) if (costs[k] < costs[child]) child = k;
      if (costs[child] >= cost) break;
      nodes[i] = nodes[child];
      costs[i] = costs[child];
      i = child;
    }
    nodes[i] = node;
    costs[i] = cost;
    return true;
  }

  #grow(): void {
    const nodes = new Int32Array(2 * this.#nodes.length);
    const costs = new Float64Array(2 * this.#costs.length);
    nodes.set(this.#nodes);
    costs.set(this.#costs);
    this.#nodes = nodes;
    this.#costs = costs;
  }
}
