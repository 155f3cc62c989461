import { Queue, QueueEvents, UnrecoverableError, Worker } from 'bullmq';
import { Redis } from 'ioredis';
import type { CrateMaker } from './make.ts';
import type { CrateEnd, CrateOrder, CrateProgress } from './order.ts';
import { type CrateQueue, type QueueListener, queueAway } from './queue.ts';

const NAME = 'zesty-crates';
const STOPPING = `${NAME}-stop`;
const stoppedKey = (id: string) => `${NAME}-stopped-${id}`;

/** A worker that is silent for this long counts as gone, and its crate is given to another. */
const LOCK_MS = 10_000;
const LOOK_MS = 4_000;
/** How often a crate may be taken over from a worker that is gone. */
const TAKEN_OVER = 3;
/** How long the queue knows crates that have ended. */
const KEPT = { age: 7 * 24 * 3600, count: 5000 };
const STOPPED = 'stopped';
/** Progress is passed on at most this often. */
const TELL_MS = 200;
/** How long an answer of the Redis may take before it counts as away, in ms. */
const ANSWER_MS = 1500;
/** Until a Redis that is away is tried again, in ms. */
const RETRY_MS = 1000;

/** Redis serves the least place first, from 1 to this. */
const MOST_PLACE = 2 ** 21;
const priorityOf = (place: number) => Math.min(MOST_PLACE, Math.max(1, place));

/** A connection that goes on trying while the Redis is away. One line in the log says so, and one that it is back. */
function connect(url: string, log: (error: unknown) => void): Redis {
  const connection = new Redis(url, { maxRetriesPerRequest: null, retryStrategy: () => RETRY_MS });
  let isAway = false;
  connection.on('error', (error) => {
    if (isAway) return;
    isAway = true;
    log(error);
  });
  connection.on('ready', () => {
    isAway = false;
  });
  return connection;
}

/** The answer of the Redis. @throws Problem `queue_away` where it takes too long. */
async function answerOf<T>(asked: Promise<T>): Promise<T> {
  let timer: NodeJS.Timeout | undefined;
  const late = new Promise<never>((_, reject) => {
    timer = setTimeout(() => reject(queueAway()), ANSWER_MS);
  });
  // It may still fail when nobody waits for it any more.
  asked.catch(() => {});
  try {
    return await Promise.race([asked, late]);
  } finally {
    clearTimeout(timer);
  }
}

/**
 * Makes the crates of a queue in Redis, with others that do the same, on this or other machines. A crate whose worker dies
 * is taken over by another; one that was made is found made. It begins as soon as the Redis answers. Returns how to end.
 */
export function workOnRedis(
  url: string,
  maker: CrateMaker,
  workers: number,
  log: (error: unknown) => void,
): () => Promise<void> {
  const connection = connect(url, log);
  const ear = connect(url, log);
  const running = new Map<string, AbortController>();
  const leaving = new AbortController();
  // Repeated by the connection itself whenever it was away.
  ear.subscribe(STOPPING).catch(() => {});
  ear.on('message', (_channel, id) => running.get(id)?.abort());
  const worker = new Worker<CrateOrder, CrateEnd>(
    NAME,
    async (job) => {
      const { id } = job.data;
      if (await connection.exists(stoppedKey(id))) throw new UnrecoverableError(STOPPED);
      const stop = new AbortController();
      running.set(id, stop);
      let told = 0;
      const tell = (progress: CrateProgress) => {
        const now = performance.now();
        if (now - told < TELL_MS) return;
        told = now;
        job.updateProgress(progress).catch(() => {});
      };
      try {
        const signal = AbortSignal.any([stop.signal, leaving.signal]);
        const end = await maker.make(job.data, tell, signal);
        if (end.state === 'stopped') {
          if (stop.signal.aborted) throw new UnrecoverableError(STOPPED);
          // This worker goes; another takes the crate over once its lock has run out.
          return await new Promise<never>(() => {});
        }
        if (end.state === 'failed') throw new UnrecoverableError(end.message);
        return end;
      } finally {
        running.delete(id);
      }
    },
    {
      connection,
      concurrency: workers,
      lockDuration: LOCK_MS,
      stalledInterval: LOOK_MS,
      maxStalledCount: TAKEN_OVER,
    },
  );
  // Its connection has reported that it is away.
  worker.on('error', () => {});
  return async () => {
    leaving.abort();
    await worker.close(true);
    ear.disconnect();
    connection.disconnect();
  };
}

/** A queue in Redis that several servers and workers share; crates and blobs lie in a folder that all of them see. */
export class RedisQueue implements CrateQueue {
  #url: string;
  #connection: Redis;
  #hearing: Redis;
  #queue: Queue<CrateOrder, CrateEnd>;
  #events: QueueEvents;
  #maker: CrateMaker;
  #workers: number;
  #log: (error: unknown) => void;
  #listener: QueueListener | null = null;
  #leave: () => Promise<void> = async () => {};

  constructor(url: string, maker: CrateMaker, workers: number, log: (error: unknown) => void) {
    this.#url = url;
    this.#connection = connect(url, log);
    this.#hearing = connect(url, log);
    this.#queue = new Queue(NAME, { connection: this.#connection });
    this.#events = new QueueEvents(NAME, { connection: this.#hearing });
    this.#queue.on('error', () => {});
    this.#events.on('error', () => {});
    this.#maker = maker;
    this.#workers = workers;
    this.#log = log;
  }

  get isThere(): boolean {
    return this.#connection.status === 'ready';
  }

  async begin(listener: QueueListener): Promise<void> {
    this.#listener = listener;
    this.#events.on('active', ({ jobId }) => listener.started(jobId));
    this.#events.on('progress', ({ jobId, data }) => listener.moved(jobId, data as unknown as CrateProgress));
    this.#events.on('completed', ({ jobId, returnvalue }) => {
      // It comes as JSON text or read already, as the sender's version has it.
      const end = typeof returnvalue === 'string' ? JSON.parse(returnvalue) : returnvalue;
      listener.ended(jobId, end as CrateEnd);
    });
    this.#events.on('failed', ({ jobId, failedReason }) => listener.ended(jobId, this.#endOf(failedReason)));
    this.#connection.on('ready', () => this.#listener?.returned());
    if (this.#workers > 0) this.#leave = workOnRedis(this.#url, this.#maker, this.#workers, this.#log);
    // Where it is away the server starts all the same: crates wait until it is back.
    await answerOf(this.#events.waitUntilReady()).catch(() => {});
  }

  #endOf(reason: string): CrateEnd {
    if (reason === STOPPED) return { state: 'stopped' };
    return { state: 'failed', message: reason };
  }

  known(id: string): Promise<'waiting' | 'working' | CrateEnd | null> {
    return answerOf(this.#known(id));
  }

  async #known(id: string): Promise<'waiting' | 'working' | CrateEnd | null> {
    const job = await this.#queue.getJob(id);
    if (!job) return null;
    const state = await job.getState();
    if (state === 'completed') return job.returnvalue;
    if (state === 'failed') return this.#endOf(job.failedReason);
    return state === 'active' ? 'working' : 'waiting';
  }

  add(order: CrateOrder, place: number): Promise<void> {
    this.#mustBeThere();
    return answerOf(this.#add(order, place));
  }

  async #add(order: CrateOrder, place: number): Promise<void> {
    await this.#connection.del(stoppedKey(order.id));
    // One that ended before is asked for again.
    const before = await this.#queue.getJob(order.id);
    await before?.remove();
    await this.#queue.add('crate', order, {
      jobId: order.id,
      priority: priorityOf(place),
      removeOnComplete: KEPT,
      removeOnFail: KEPT,
    });
  }

  async place(id: string, place: number): Promise<void> {
    this.#mustBeThere();
    await answerOf(
      this.#queue.getJob(id).then((job) => job?.changePriority({ priority: priorityOf(place) })),
    );
  }

  stop(id: string): Promise<void> {
    this.#mustBeThere();
    return answerOf(this.#stop(id));
  }

  async #stop(id: string): Promise<void> {
    const job = await this.#queue.getJob(id);
    if (!job) return;
    // It stands even where the worker that has the crate is gone and another takes it over.
    await this.#connection.set(stoppedKey(id), '1', 'EX', KEPT.age);
    if ((await job.getState()) === 'active') {
      await this.#connection.publish(STOPPING, id);
      return;
    }
    await job.remove();
    this.#listener?.ended(id, { state: 'stopped' });
  }

  /** What is asked of a Redis that is away would be carried out when it is back, when nobody expects it any more. */
  #mustBeThere(): void {
    if (!this.isThere) throw queueAway();
  }

  async close(): Promise<void> {
    this.#listener = null;
    await this.#leave();
    // Where it is away, closing would wait for its answer.
    if (this.isThere) {
      await this.#events.close();
      await this.#queue.close();
    }
    this.#hearing.disconnect();
    this.#connection.disconnect();
  }
}
