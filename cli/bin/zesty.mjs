#!/usr/bin/env node
import { isBuilt } from './built.mjs';

// The server's parts, of which a worker is made, are run from their sources.
if (process.argv[2] !== 'worker' && isBuilt()) await import('../dist/main.js');
else {
  const { register } = await import('tsx/esm/api');
  register();
  await import('../src/main.ts');
}
