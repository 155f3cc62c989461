import { existsSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { pino } from 'pino';
import { serve } from './serve.ts';
import { workersOf } from './workers-of.ts';

const log = pino({ level: process.env.ZESTY_LOG ?? 'info' });
const host = process.env.ZESTY_HOST ?? '127.0.0.1';
const port = Number(process.env.ZESTY_PORT ?? 5177);
const data = process.env.ZESTY_DATA ?? fileURLToPath(new URL('../../data', import.meta.url));
const built = fileURLToPath(new URL('../../web/dist', import.meta.url));

try {
  const { url, close } = await serve({
    data,
    host,
    port,
    web: existsSync(built) ? built : null,
    workers: workersOf(process.env.ZESTY_WORKERS),
    redis: process.env.ZESTY_REDIS,
    shared: process.env.ZESTY_SHARED,
    log: (error) => log.error(error),
  });
  console.log(`Zesty Tile is ready: ${url}`);
  const end = () => close().then(() => process.exit(0));
  process.once('SIGINT', end);
  process.once('SIGTERM', end);
} catch (error) {
  const taken = (error as NodeJS.ErrnoException).code === 'EADDRINUSE';
  console.error(
    taken
      ? `Port ${port} is taken by another program. Choose another with ZESTY_PORT=5178, or end that program.`
      : `The server could not start: ${error instanceof Error ? error.message : error}`,
  );
  process.exit(1);
}
