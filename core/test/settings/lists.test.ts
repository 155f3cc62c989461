import {
  assignSetting,
  changesBetween,
  changeWords,
  MASK_PARTS,
  type Mask,
  newItem,
  newRecipe,
  Problem,
  parseRecipe,
  type Recipe,
  recipeProblems,
  STATIONS,
  valueWords,
} from '@zesty-tile/core';
import { expect } from 'chai';

const moss: Mask = {
  id: 'moss',
  name: 'Moss',
  wetness: 0,
  parts: [newItem(MASK_PARTS, 'colour'), newItem(MASK_PARTS, 'range')],
};
const damp: Mask = { ...moss, id: 'damp', name: 'Damp joints', parts: [newItem(MASK_PARTS, 'brush')] };
const recipe: Recipe = { ...newRecipe(), masks: [moss, damp] };

describe('lists of settings', () => {
  it('fill in what is left out of an item, and name what is wrong in it', () => {
    const parts = [{ by: 'colour', colour: '#4c5a2a' }];
    const { masks } = parseRecipe({ version: 2, masks: [{ id: 'moss', parts }] });
    expect(masks[0]).to.deep.equal({
      id: 'moss',
      name: 'Zone',
      wetness: 0,
      parts: [{ ...newItem(MASK_PARTS, 'colour'), colour: '#4c5a2a' }],
    });
    const wrong = (value: unknown) => recipeProblems({ version: 2, masks: value }).join(' ');
    expect(wrong([{ id: 'moss', parts: [{ by: 'colour', reach: 7 }] }])).to.match(
      /“masks\.0\.parts\.0\.reach” must be at most 1; it is 7/,
    );
    expect(wrong([{ id: 'moss', parts: [{ by: 'scent' }] }])).to.include('masks.0.parts.0.by');
    expect(wrong([{ id: 'moss', parts: [{ by: 'colour', rech: 1 }] }])).to.match(
      /“masks\.0\.parts\.0\.rech” is not a setting/,
    );
    expect(wrong([{ id: 'Moss!', parts }])).to.include('lower-case letters');
    expect(wrong([{ id: 'moss', parts: [] }])).to.include('at least 1');
    expect(
      wrong([
        { id: 'moss', parts },
        { id: 'moss', parts },
      ]),
    ).to.include('same id twice');
    expect(wrong(Array.from({ length: 13 }, (_, k) => ({ id: `m${k}`, parts })))).to.include('at most 12');
  });

  it('are assigned item by item, by their places', () => {
    const softer = assignSetting(recipe, 'masks.0.parts.1.softness', '0.3');
    expect(softer.masks[0].parts[1]).to.deep.include({ by: 'range', softness: 0.3 });
    expect(softer.masks[1]).to.deep.equal(damp);
    expect(assignSetting(recipe, 'masks.1.name', 'Joints').masks[1].name).to.equal('Joints');
    expect(assignSetting(recipe, 'masks', '[]').masks).to.deep.equal([]);
    const toned = assignSetting(recipe, 'gauge.zoneTones', '[{"zone":"moss","exposure":-1}]');
    expect(toned.stations.gauge.zoneTones).to.deep.equal([
      { ...newItem(STATIONS.gauge.settings.zoneTones), zone: 'moss', exposure: -1 },
    ]);
    expect(assignSetting(toned, 'gauge.zoneTones.0.line', 'moss').stations.gauge.zoneTones[0].line).to.equal(
      'moss',
    );
    for (const [path, text, words] of [
      ['masks.2.name', 'x', 'it has items 0 to 1'],
      ['masks.moss.name', 'x', 'is not an item of the list'],
      ['masks.0', '{}', 'is a whole item'],
      ['masks.0.parts.0.softness', '7', 'a number from 0 to 1'],
      ['masks.0.parts.0.from', '0.1', 'has no setting “from”; it has how, colour, reach, softness'],
      ['masks.0.id', 'No!', 'lower-case letters'],
      ['masks.0.parts.0.colour.red', '1', 'has none within it'],
      ['masks', '{', 'takes data such as'],
      ['masks', '[{"id":"a","parts":[]}]', 'takes data such as'],
    ]) {
      expect(() => assignSetting(recipe, path, text), path).to.throw(Problem, words);
    }
  });

  it('are compared item by item: what changed in one, what was added or removed', () => {
    const words = (after: Recipe) =>
      changesBetween(recipe, after).map(
        (change) =>
          `${change.key}: ${changeWords(change)} ${valueWords(change.setting, change.from)} → ${valueWords(change.setting, change.to)}`,
      );
    expect(words(assignSetting(recipe, 'masks.0.parts.1.to', '0.7'))).to.deep.equal([
      '0.parts.1.to: Moss, part 2, To 0.40 → 0.70',
    ]);
    expect(words({ ...recipe, masks: [moss] })).to.deep.equal(['masks: Zones Moss, Damp joints → Moss']);
    expect(words({ ...recipe, masks: [] })).to.deep.equal(['masks: Zones Moss, Damp joints → none']);
    // One removed and another changed: both are said.
    const changed = { ...recipe, masks: [{ ...damp, wetness: 0.5 }] };
    expect(words(changed)).to.deep.equal([
      'masks: Zones Moss, Damp joints → Damp joints',
      '0.wetness: Damp joints, Wetness 0.00 → 0.50',
    ]);
    const otherKind = { ...moss, parts: [newItem(MASK_PARTS, 'range'), newItem(MASK_PARTS, 'range')] };
    expect(words({ ...recipe, masks: [otherKind, damp] })).to.deep.equal([
      '0.parts: Moss, Parts part 1, part 2 → part 1, part 2',
    ]);
    expect(changesBetween(recipe, JSON.parse(JSON.stringify(recipe)))).to.deep.equal([]);
  });
});
