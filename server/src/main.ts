import { existsSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { pino } from 'pino';
import { problemOf } from './problems.ts';
import { serve } from './serve.ts';
import { workersOf } from './workers-of.ts';

const log = pino({ level: process.env.ZESTY_LOG ?? 'info' });
const host = process.env.ZESTY_HOST ?? '127.0.0.1';
const port = Number(process.env.ZESTY_PORT ?? 5177);
const data = process.env.ZESTY_DATA ?? fileURLToPath(new URL('../../data', import.meta.url));
const built = fileURLToPath(new URL('../../web/dist', import.meta.url));

/** Why the server did not start, and what to do. */
function wordsOf(error: unknown): string {
  const { code } = error as NodeJS.ErrnoException;
  if (code === 'EADDRINUSE') {
    return `Port ${port} is already in use. Choose another with ZESTY_PORT=5178, or stop the program using it.`;
  }
  if (code === 'EADDRNOTAVAIL' || code === 'ENOTFOUND') {
    return `This machine has no address ${host}. Set ZESTY_HOST to 127.0.0.1, or to one of its addresses.`;
  }
  const problem = problemOf(error);
  if (problem) return `The server could not start: ${problem.message} ${problem.hint}`;
  return `The server could not start: ${error instanceof Error ? error.message : error}`;
}

try {
  const { url, token, close } = await serve({
    data,
    host,
    port,
    web: existsSync(built) ? built : null,
    workers: workersOf(process.env.ZESTY_WORKERS),
    redis: process.env.ZESTY_REDIS,
    shared: process.env.ZESTY_SHARED,
    log: (error) => log.error(error),
  });
  if (token) {
    console.log(
      `Warning: on ${host} other machines can reach this server. Whoever has this address can see and change all its tiles.`,
    );
  }
  console.log(`Zesty Tile is ready: ${url}${token ? `/?token=${token}` : ''}`);
  const end = () => close().then(() => process.exit(0));
  process.once('SIGINT', end);
  process.once('SIGTERM', end);
} catch (error) {
  console.error(wordsOf(error));
  process.exit(1);
}
