import { Engine, newRecipe, STATION_NAMES } from '@zesty-tile/core';
import { makeCrate } from '@zesty-tile/crates';
import { expect } from 'chai';
import { hostOf, photo, pixelsOf } from '../../core/test/engine/host.ts';

const base = newRecipe();
const recipe = {
  ...base,
  stations: { ...base.stations, square: { ...base.stations.square, size: 256 as const } },
};
const source = { sha256: 'a'.repeat(64), width: 320, height: 320 };

/** Makes a crate of a made-up photo; `onStation` is told of each station as it is measured. */
async function made(onStation: (name: string, stored: readonly string[]) => void) {
  const stored: string[] = [];
  const making = makeCrate(
    new Engine(hostOf(pixelsOf(photo(320, 320))), 0),
    { recipe, source, onStation: (name) => onStation(name, stored) },
    { tile: 'Wall', crate: 1 },
    { ...source, file: 'wall.png' },
    async ({ name }) => {
      stored.push(name);
    },
  );
  return { stored, outcome: await making.catch((error: Error) => error) };
}

describe('making a crate', () => {
  it('measures every station, those of the tile after the others, and writes the manifest last', async () => {
    const measured: string[] = [];
    const { stored, outcome } = await made((name) => measured.push(name));
    expect(measured).to.deep.equal(STATION_NAMES);
    if (outcome instanceof Error) throw outcome;
    expect(Object.keys(outcome.manifest.verdicts)).to.have.members([...STATION_NAMES]);
    expect(stored.at(-1)).to.match(/\.tile\.json$/);
    expect(stored).to.have.length(outcome.manifest.files.length + 1);
  });

  it('that fails while figures are measured stores nothing any more once it has thrown, and no manifest', async () => {
    const { stored, outcome } = await made((name) => {
      if (name === 'crate') throw new Error('It could not be measured.');
    });
    expect(outcome).to.be.instanceOf(Error).with.property('message', 'It could not be measured.');
    const whole = await made(() => {});
    if (whole.outcome instanceof Error) throw whole.outcome;
    // All that was begun was waited for.
    expect(stored).to.deep.equal(whole.stored.slice(0, -1));
  });
});
