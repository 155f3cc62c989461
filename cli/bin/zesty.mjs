#!/usr/bin/env node
import { fileURLToPath } from 'node:url';
import { isBuilt } from '@zesty-tile/codecs/built';

// The queue of a worker is the server's, which is run from its sources.
if (process.argv[2] !== 'worker' && isBuilt(fileURLToPath(new URL('..', import.meta.url)))) {
  await import('../dist/main.mjs');
} else {
  const { register } = await import('tsx/esm/api');
  register();
  await import('../src/main.ts');
}
