import type { AddressInfo } from 'node:net';
import { resolve } from 'node:path';
import { createAdaptorServer } from '@hono/node-server';
import { makeFolder, onDisk } from '@zesty-tile/crates';
import { createApp } from './app.ts';
import { Blobs } from './blobs.ts';
import { Crates } from './crates/crates.ts';
import { CrateMaker } from './crates/make.ts';
import { OwnQueue } from './crates/own-queue.ts';
import { RedisQueue, workOnRedis } from './crates/redis-queue.ts';
import { lockFolder } from './db/lock.ts';
import { openDatabase } from './db/open.ts';
import { withReserve } from './db/reserve.ts';
import { Looks } from './looks.ts';
import { isLoopback, reachableHost } from './network/hosts.ts';
import { tokenOf } from './network/token.ts';
import { Pool } from './pool/pool.ts';
import { loggable } from './problems.ts';
import { sweepFolder } from './sweep.ts';

export interface ServeOptions {
  /** Folder of database, blobs and crates. */
  data: string;
  host: string;
  /** 0 takes any free port. */
  port: number;
  web: string | null;
  /** Threads that make crates. */
  workers?: number;
  /** Address of a Redis whose queue is shared; its own queue where there is none. */
  redis?: string;
  /** Folder of blobs and crates that all who share the queue see; `data` where there is none. */
  shared?: string;
  log(error: unknown): void;
}

/** Threads that make crates, where nothing else is said. */
export const USUAL_WORKERS = 2;

/**
 * The parts of the server over a data folder, without a network address.
 * @throws Problem `in_use` where another server has the folder.
 */
export async function openStore({
  data,
  log,
  workers = USUAL_WORKERS,
  redis,
  shared = data,
}: Pick<ServeOptions, 'data' | 'log' | 'workers' | 'redis' | 'shared'>) {
  await onDisk(data, () => makeFolder(resolve(data)));
  const unlock = await withReserve(data, () => lockFolder(data));
  let database: Awaited<ReturnType<typeof openDatabase>>;
  try {
    database = await withReserve(data, () => openDatabase(data));
  } catch (error) {
    await unlock();
    throw error;
  }
  const { db, close } = database;
  const blobs = new Blobs(shared);
  // What others share may be in use by them.
  if (resolve(shared) === resolve(data) && !redis) {
    await sweepFolder(data, db, blobs).catch((error) => log(loggable(error)));
  }
  const pool = new Pool(workers);
  const maker = new CrateMaker(shared, pool, log);
  const queue = redis ? new RedisQueue(redis, maker, workers, log) : new OwnQueue(maker, workers);
  const crates = new Crates({ shared, data, db, queue, log });
  await crates.begin();
  const looks = new Looks(db, blobs, pool);
  return {
    db,
    blobs,
    pool,
    crates,
    looks,
    queue,
    async close() {
      await queue.close();
      await crates.close();
      await pool.close();
      close();
      await unlock();
    },
  };
}

/** Makes crates of a shared queue without a server, as soon as its Redis answers. Returns how to end. */
export function startWorker({
  redis,
  shared,
  workers,
  log,
}: Required<Pick<ServeOptions, 'redis' | 'shared' | 'workers' | 'log'>>): () => Promise<void> {
  const pool = new Pool(workers);
  const leave = workOnRedis(redis, new CrateMaker(shared, pool, log), workers, log);
  return async () => {
    await leave();
    await pool.close();
  };
}

/** Starts the server; resolves once it listens. */
export async function serve(options: ServeOptions) {
  const store = await openStore(options);
  const { host, web, log } = options;
  const token = isLoopback(host) ? null : await tokenOf(options.data);
  const app = createApp({ ...store, host, token, web, log });
  const server = createAdaptorServer({ fetch: app.fetch });
  try {
    await new Promise<void>((resolve, reject) => {
      server.once('error', reject);
      server.listen(options.port, host, resolve);
    });
  } catch (error) {
    await store.close();
    throw error;
  }
  const { port } = server.address() as AddressInfo;
  return {
    url: `http://${reachableHost(host)}:${port}`,
    token,
    store,
    async close() {
      if ('closeAllConnections' in server) server.closeAllConnections();
      await new Promise((resolve) => server.close(resolve));
      await store.close();
    },
  };
}
