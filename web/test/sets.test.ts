import { type PictureContent, setsOf } from '@zesty-tile/core';
import { expect } from 'chai';
import {
  givenOf,
  judged,
  type PictureSet,
  problemsOf,
  setOf,
  swapped,
} from '../src/stations/source/picture-sets.ts';

const dropped = (...names: string[]): PictureSet => setOf(setsOf(names.map((name) => ({ name }) as File))[0]);
/** The set with all its pictures read, of these sides. */
const read = (set: PictureSet, sides: Record<string, [number, number]> = {}): PictureSet => ({
  ...set,
  members: set.members.map((member) => {
    const [width, height] = sides[member.file] ?? [800, 600];
    return { ...member, picture: { sha256: member.file, width, height, name: member.file } };
  }),
});

describe('a dropped set', () => {
  it('whose names tell everything has nothing to ask', () => {
    const set = read(dropped('gate_albedo.png', 'gate_normal_gl.png', 'gate_height.exr'));
    expect(set.name).to.equal('Gate');
    expect(set.green).to.equal('up');
    expect(set.members.map(({ role }) => role)).to.deep.equal(['colour', 'normal', 'height']);
    expect(problemsOf(set)).to.deep.equal([]);
  });

  it('asks for what a name does not tell, and never guesses it', () => {
    const set = read(dropped('gate_albedo.png', 'gate_normal.png', 'gate_r.png', 'gate_d.png'));
    expect(set.members.map(({ role }) => role)).to.deep.equal(['colour', 'normal', null, null]);
    expect(problemsOf(set)).to.deep.equal([
      'Choose a map type for gate_r.png.',
      'Choose a map type for gate_d.png.',
    ]);
  });

  it('splits a packed picture by its channels, and leaves out what follows from others', () => {
    const set = read(dropped('gate_albedo.png', 'gate_orm.png', 'gate_specular.png'));
    expect(set.members[1]).to.deep.include({
      role: 'packed',
      channels: ['occlusion', 'roughness', 'metallic'],
    });
    expect(set.members[2]).to.include({ role: 'none', doubt: 'follows from colour and metallic' });
    expect(problemsOf(set)).to.deep.equal([]);
    const given = givenOf(set);
    expect(Object.keys(given).sort()).to.deep.equal(['metallic', 'occlusion', 'roughness']);
    expect(given.metallic).to.include({ sha256: 'gate_orm.png', channel: 2 });
  });

  const content = (kind: PictureContent['kind'], hasAlpha = false): PictureContent => ({
    kind,
    hasAlpha,
    green: { isNormal: kind === 'normal', up: 0, down: 0, points: null },
  });
  const stored = { sha256: 'x', width: 8, height: 8, name: 'x.png' };

  it('looks at values where a name does not tell, and says so', () => {
    const [, unknown] = dropped('gate_albedo.png', 'gate_normal.png').members;
    const nameless = { ...unknown, role: null, doubt: 'map type unknown' };
    expect(judged(nameless, stored, content('packed'))).to.deep.include({
      role: 'packed',
      channels: ['occlusion', 'roughness', 'metallic'],
      doubt: 'its channels hold different maps: check each',
    });
    expect(judged(nameless, stored, content('normal')).role).to.equal('normal');
    expect(judged(nameless, stored, content('grey')).role).to.equal(null);
    // Gloss in the alpha of a normal, opacity in that of a colour; an alpha that says nothing is none.
    expect(judged(unknown, stored, content('normal', true)).channels).to.deep.equal(['gloss']);
    expect(judged({ ...unknown, role: 'colour' }, stored, content('colour', true)).channels).to.deep.equal([
      'opacity',
    ]);
    expect(judged({ ...unknown, channels: ['gloss'] }, stored, content('normal')).channels).to.deep.equal([]);
  });

  it('exchanges what two pictures are', () => {
    const { members } = read(dropped('gate_albedo.png', 'gate_orm.png'));
    const [first, second] = swapped(members, 0, 1);
    expect(first).to.deep.include({
      file: 'gate_albedo.png',
      role: 'packed',
      channels: ['occlusion', 'roughness', 'metallic'],
    });
    expect(second).to.deep.include({ file: 'gate_orm.png', role: 'colour', channels: [] });
  });

  it('needs one colour, one picture for each map, and one shape', () => {
    const set = read(dropped('gate_normal.png', 'gate_height.png', 'gate_disp.png'), {
      'gate_disp.png': [800, 800],
    });
    const [noColour, twice] = problemsOf(set);
    expect(noColour).to.match(/Choose the picture that is the colour/);
    expect(twice).to.match(/Two pictures are taken for the height/);
    const coloured = {
      ...set,
      members: set.members.map((member, k) => (k === 0 ? { ...member, role: 'colour' as const } : member)),
    };
    expect(problemsOf(coloured).join(' ')).to.match(/gate_disp\.png is 800 × 800, the colour 800 × 600/);
    const left = {
      ...coloured,
      members: coloured.members.map((member, k) => (k === 2 ? { ...member, role: 'none' as const } : member)),
    };
    expect(problemsOf(left)).to.deep.equal([]);
  });
});
