import { Problem } from '@zesty-tile/core';

export interface WorkerOptions {
  redis?: string;
  shared?: string;
  workers: string;
}

/**
 * `zesty worker`: makes crates of a queue in Redis, with servers and workers on other machines, from and into a folder that
 * all of them see. Goes on until it is ended.
 */
export async function worker({ redis, shared, workers }: WorkerOptions): Promise<void> {
  const count = Number(workers);
  if (!Number.isInteger(count) || count < 1 || count > 64) {
    throw new Problem(
      'bad_setting',
      `--workers takes a whole number from 1 to 64, not “${workers}”.`,
      'Use a whole number.',
    );
  }
  if (!redis || !shared) {
    throw new Problem(
      'bad_setting',
      `A worker needs ${redis ? 'the shared folder' : 'the address of a Redis'}.`,
      redis ? 'Give it with --shared or ZESTY_SHARED.' : 'Give it with --redis or ZESTY_REDIS.',
    );
  }
  // The server's parts are only loaded where they are needed.
  const { startWorker } = await import('@zesty-tile/server');
  const log = (error: unknown) => process.stderr.write(`${error instanceof Error ? error.message : error}\n`);
  const end = startWorker({ redis, shared, workers: count, log });
  process.stdout.write(`Working with ${count} threads on ${redis}.\n`);
  await new Promise<void>((resolve) => {
    process.once('SIGINT', resolve);
    process.once('SIGTERM', resolve);
  });
  await end();
}
