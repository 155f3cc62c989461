import { readFile } from 'node:fs/promises';
import { expect } from 'chai';
import { makeMissingPictures } from '../src/generate.ts';
import {
  bakeReference,
  REFERENCE_FILE,
  REFERENCE_SIZES,
  type ReferenceHashes,
  referenceCases,
} from '../src/reference.ts';

const cases = await referenceCases();

/** One without masks, one with. */
const AT_BOTH = ['tile-pamments', 'tile-copper'];

describe('reference bakes', () => {
  let stored: Record<string, ReferenceHashes>;

  before(async function () {
    // On a new machine all pictures are made first, beside another file of tests.
    this.timeout(1_200_000);
    await makeMissingPictures();
    stored = JSON.parse(await readFile(REFERENCE_FILE, 'utf8'));
  });

  it('are stored for every case at every size', () => {
    const expected = cases.flatMap(({ name }) => REFERENCE_SIZES.map((size) => `${name} at ${size}`));
    expect(Object.keys(stored)).to.have.members(expected);
  });

  for (const one of cases) {
    // Two tiles at both sizes, the others at the smaller one, to save time: `npm run reference` bakes all of them.
    const sizes = AT_BOTH.includes(one.name) ? REFERENCE_SIZES : REFERENCE_SIZES.slice(0, 1);
    it(`${one.name}: files and verdicts are the stored ones`, async () => {
      const made = await bakeReference(one, sizes);
      for (const [at, hashes] of Object.entries(made)) expect(hashes, at).to.deep.equal(stored[at]);
    });
  }
});
