import { setsOf } from '@zesty-tile/core';
import { expect } from 'chai';
import { type PictureSet, problemsOf, setOf } from '../src/yard/sets/picture-sets.ts';

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

  it('leaves out what is not taken from files, and says which', () => {
    const set = read(dropped('gate_albedo.png', 'gate_rough.png', 'gate_orm.png'));
    expect(set.members[2]).to.include({ role: 'none', doubt: 'orm is not taken from a file' });
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
