import { fileURLToPath } from 'node:url';
import { Problem } from '@zesty-tile/core';
import { makeMissingPictures, writeLantern } from './generate.ts';
import { seed } from './seed.ts';

const folder = process.env.ZESTY_DATA ?? fileURLToPath(new URL('../../data', import.meta.url));
await makeMissingPictures();
console.log(`The shape of the garden lantern, for the lit view: ${await writeLantern()}`);
try {
  if (await seed(folder)) console.log('The Limonaia project is in the Yard.');
} catch (error) {
  if (!(error instanceof Problem)) throw error;
  console.error(`The demo project could not be made: ${error.message} ${error.hint}`);
  process.exitCode = 1;
}
