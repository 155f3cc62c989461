import type { Verdict } from '@zesty-tile/core';
import { expect } from 'chai';
import { nearestColour } from '../src/palettes/nearest.ts';
import { paletteText, readPalette } from '../src/palettes/palette-file.ts';
import { reflectanceWords } from '../src/settings/reflectance.ts';
import { chooseTiles, EVERYTHING, tagsOf } from '../src/yard/choose-tiles.ts';
import type { YardTile } from '../src/yard/queries.ts';

const verdict = (state: Verdict['state']): Verdict => ({
  state,
  brief: '',
  sentence: '',
  advice: '',
  figures: [],
});

const tile = (name: string, k: number, tags: string[] = [], state?: Verdict['state']): YardTile => ({
  id: name,
  projectId: 'p',
  name,
  createdAt: `2026-01-0${k}T00:00:00Z`,
  changedAt: `2026-02-0${9 - k}T00:00:00Z`,
  tags,
  revision: 1,
  size: 256 * k,
  edgeMetres: 1,
  shape: '1:1',
  look: state ? { verdicts: { join: verdict(state) }, thumbnail: '', ball: '', maps: {} } : null,
});

const all = [
  tile('Wall 10', 1, ['wall', 'lime'], 'fine'),
  tile('Wall 9', 2, ['wall'], 'wrong'),
  tile('Path', 3, ['ground'], 'look'),
  tile('New', 4),
];
const names = (wish: Partial<typeof EVERYTHING>) =>
  chooseTiles(all, { ...EVERYTHING, ...wish }).map(({ name }) => name);

describe('choosing tiles', () => {
  it('sorts by when they were made or changed, by name as people count, by size, by what needs work', () => {
    expect(names({})).to.deep.equal(['New', 'Path', 'Wall 9', 'Wall 10']);
    expect(names({ sort: 'changed' })).to.deep.equal(['Wall 10', 'Wall 9', 'Path', 'New']);
    expect(names({ sort: 'name' })).to.deep.equal(['New', 'Path', 'Wall 9', 'Wall 10']);
    expect(names({ sort: 'size' })).to.deep.equal(['New', 'Path', 'Wall 9', 'Wall 10']);
    expect(names({ sort: 'verdict' })).to.deep.equal(['Wall 9', 'Path', 'Wall 10', 'New']);
  });

  it('finds by every word, in names and tags; filters by tags and by the worst verdict', () => {
    expect(names({ search: 'WALL li' })).to.deep.equal(['Wall 10']);
    expect(names({ search: 'wall ground' })).to.deep.equal([]);
    expect(names({ tags: ['wall', 'lime'] })).to.deep.equal(['Wall 10']);
    expect(names({ worst: 'look' })).to.deep.equal(['Path']);
    expect(tagsOf(all)).to.deep.equal([
      ['wall', 2],
      ['ground', 1],
      ['lime', 1],
    ]);
  });
});

describe('palettes', () => {
  it('come back from their file as they were; a file without a name takes the file’s', () => {
    const palette = { name: 'Noon', colours: [{ name: 'lemon', hex: '#d9c23a' }] };
    expect(readPalette(paletteText(palette), 'x')).to.deep.equal(palette);
    expect(readPalette('{"colours":[{"hex":"#ABCDEF"}]}', 'dusk')).to.deep.equal({
      name: 'dusk',
      colours: [{ name: '', hex: '#abcdef' }],
    });
    expect(() => readPalette('{', 'x')).to.throw(/not JSON/);
    expect(() => readPalette('{"name":"x"}', 'x')).to.throw(/no list “colours”/);
    expect(() => readPalette('{"colours":[{"hex":"#abcdef"},{"hex":"red"}]}', 'x')).to.throw(
      /Colour 2 is “red”/,
    );
  });

  it('name the colour that looks nearest, with its distance', () => {
    const colours = [
      { name: 'grey', hex: '#808080' },
      { name: 'leaf', hex: '#55663a' },
    ];
    const near = nearestColour([0.2159, 0.2159, 0.2159], colours)!;
    expect(near.colour.name).to.equal('grey');
    expect(near.distance).to.be.below(0.001);
    expect(nearestColour([0.09, 0.13, 0.04], colours)!.colour.name).to.equal('leaf');
    expect(nearestColour([0, 0, 0], [])).to.equal(null);
  });
});

describe('language of figures', () => {
  it('says the same reflectance three ways', () => {
    expect(reflectanceWords(0.18, 'y')).to.equal('Y 0.180');
    expect(reflectanceWords(0.18, 'srgb')).to.equal('sRGB 118');
    expect(reflectanceWords(0.18, 'percent')).to.equal('18.0 %');
  });
});
