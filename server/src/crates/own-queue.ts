import type { CrateMaker } from './make.ts';
import type { CrateOrder } from './order.ts';
import type { CrateQueue, QueueListener } from './queue.ts';

interface Waiting {
  order: CrateOrder;
  place: number;
}

/** A crate this large fills the memory by itself, so nothing is made beside it. */
const ALONE_FROM = 8192;

const isLarge = ({ recipe }: CrateOrder): boolean => recipe.stations.square.size >= ALONE_FROM;

/** The queue of one server: crates wait in its memory (its database knows them), and are made by its own threads. */
export class OwnQueue implements CrateQueue {
  readonly isThere = true;
  #maker: CrateMaker;
  #most: number;
  #listener: QueueListener | null = null;
  #waiting: Waiting[] = [];
  #running = new Map<string, { order: CrateOrder; stop: AbortController; work: Promise<void> }>();
  #isClosed = false;

  constructor(maker: CrateMaker, workers: number) {
    this.#maker = maker;
    this.#most = workers;
  }

  async begin(listener: QueueListener): Promise<void> {
    this.#listener = listener;
    this.#next();
  }

  async known(id: string): Promise<'waiting' | 'working' | null> {
    if (this.#running.has(id)) return 'working';
    return this.#waiting.some(({ order }) => order.id === id) ? 'waiting' : null;
  }

  async add(order: CrateOrder, place: number): Promise<void> {
    this.#waiting.push({ order, place });
    this.#next();
  }

  async place(id: string, place: number): Promise<void> {
    const found = this.#waiting.find(({ order }) => order.id === id);
    if (found) found.place = place;
  }

  async stop(id: string): Promise<void> {
    const at = this.#waiting.findIndex(({ order }) => order.id === id);
    if (at >= 0) {
      this.#waiting.splice(at, 1);
      this.#listener?.ended(id, { state: 'stopped' });
    }
    this.#running.get(id)?.stop.abort();
  }

  async close(): Promise<void> {
    this.#isClosed = true;
    this.#waiting = [];
    const running = [...this.#running.values()];
    for (const { stop } of running) stop.abort();
    await Promise.all(running.map(({ work }) => work));
  }

  #next(): void {
    while (this.#listener && !this.#isClosed && this.#running.size < this.#most && this.#waiting.length > 0) {
      this.#waiting.sort((a, b) => a.place - b.place);
      const [{ order }] = this.#waiting;
      const isAlone = isLarge(order) || [...this.#running.values()].some((one) => isLarge(one.order));
      if (isAlone && this.#running.size > 0) return;
      this.#waiting.shift();
      const stop = new AbortController();
      this.#running.set(order.id, { order, stop, work: this.#run(order, stop.signal) });
    }
  }

  async #run(order: CrateOrder, signal: AbortSignal): Promise<void> {
    // The entry for it is made first.
    await Promise.resolve();
    const { id } = order;
    this.#listener?.started(id);
    const end = await this.#maker.make(order, (progress) => this.#listener?.moved(id, progress), signal);
    this.#running.delete(id);
    // A server that closes breaks its work off without calling it stopped: it is taken up at the next start.
    if (!this.#isClosed) this.#listener?.ended(id, end);
    this.#next();
  }
}
