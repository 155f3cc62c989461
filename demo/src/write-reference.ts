import { writeFile } from 'node:fs/promises';
import { makeMissingPictures } from './generate.ts';
import { bakeReference, REFERENCE_FILE, type ReferenceHashes, referenceCases } from './reference.ts';

/** Bakes every reference case again and stores its hashes: for a change of results that is meant. */
await makeMissingPictures();
const hashes: Record<string, ReferenceHashes> = {};
for (const one of await referenceCases()) {
  const start = performance.now();
  Object.assign(hashes, await bakeReference(one));
  console.log(`${one.name}: ${Math.round(performance.now() - start)} ms`);
}
await writeFile(REFERENCE_FILE, `${JSON.stringify(hashes, null, 1)}\n`);
