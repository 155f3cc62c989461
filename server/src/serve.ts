import type { AddressInfo } from 'node:net';
import { createAdaptorServer } from '@hono/node-server';
import { createApp } from './app.ts';
import { Blobs } from './blobs.ts';
import { Crates } from './crates/crates.ts';
import { openDatabase } from './db/open.ts';
import { Looks } from './looks.ts';
import { Pool } from './pool/pool.ts';

export interface ServeOptions {
  /** Folder of database, blobs and crates. */
  data: string;
  host: string;
  /** 0 takes any free port. */
  port: number;
  web: string | null;
  log(error: unknown): void;
}

/** The parts of the server over a data folder, without a network address. */
export async function openStore(data: string, log: (error: unknown) => void) {
  const { db, close } = await openDatabase(data);
  const blobs = new Blobs(data);
  const pool = new Pool();
  const crates = new Crates(data, db, pool, log);
  await crates.recover();
  const looks = new Looks(db, blobs, pool);
  return {
    db,
    blobs,
    pool,
    crates,
    looks,
    async close() {
      await pool.close();
      close();
    },
  };
}

/** Starts the server; resolves once it listens. */
export async function serve(options: ServeOptions) {
  const store = await openStore(options.data, options.log);
  const app = createApp({ ...store, host: options.host, web: options.web, log: options.log });
  const server = createAdaptorServer({ fetch: app.fetch });
  await new Promise<void>((resolve, reject) => {
    server.once('error', reject);
    server.listen(options.port, options.host, resolve);
  });
  const { port } = server.address() as AddressInfo;
  return {
    url: `http://${options.host}:${port}`,
    store,
    async close() {
      if ('closeAllConnections' in server) server.closeAllConnections();
      await new Promise((resolve) => server.close(resolve));
      await store.close();
    },
  };
}
