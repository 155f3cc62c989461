import {
  applySaved,
  changesBetween,
  newRecipe,
  parseSaved,
  type Recipe,
  SAVABLE,
  STATION_NAMES,
  sectionsOf,
  sectionsToSave,
  valueWords,
} from '@zesty-tile/core';
import { expect } from 'chai';

function changed(station: keyof Recipe['stations'], values: object, from = newRecipe()): Recipe {
  return { ...from, stations: { ...from.stations, [station]: { ...from.stations[station], ...values } } };
}

describe('changes between recipes', () => {
  it('names every setting that differs, in the order of the Course, and no decision', () => {
    const before = newRecipe();
    const after = changed('relief', { depthMm: 3, polarity: 'dark' }, changed('even', { amount: 0.5 }));
    const found = changesBetween(before, {
      ...after,
      decisions: { gauge: { key: 'k', data: { median: 1, gain: 1 } } },
    } as Recipe);
    expect(found.map(({ section, key }) => `${section}.${key}`)).to.deep.equal([
      'even.amount',
      'relief.depthMm',
      'relief.polarity',
    ]);
    expect(changesBetween(after, after)).to.deep.equal([]);
    const words = found.map(
      ({ setting, from, to }) => `${valueWords(setting, from)} → ${valueWords(setting, to)}`,
    );
    expect(words).to.deep.equal(['1.00 → 0.50', '8.0 mm → 3.0 mm', 'Bright → Dark']);
  });

  it('says values as people write them', () => {
    const { setting } = changesBetween(newRecipe(), changed('gauge', { exposure: -0.38 }))[0];
    expect(valueWords(setting, -0.38)).to.equal('−0.38 stops');
    const [fit] = changesBetween(newRecipe(), changed('gauge', { fit: false }));
    expect(valueWords(fit.setting, false)).to.equal('off');
  });
});

describe('saved recipes', () => {
  const source = changed(
    'square',
    { size: 2048, edgeMetres: 3, turnDegrees: 4, share: 0.5 },
    changed('gauge', { exposure: 1 }),
  );

  it('leave out what belongs to the picture, and put on another tile leave it as it is', () => {
    const saved = sectionsToSave(source, STATION_NAMES);
    expect(saved.stations.square).to.deep.equal({ size: 2048 });
    expect(SAVABLE).to.not.include('source');
    const own = changed('square', { edgeMetres: 1.24, turnDegrees: 1.6 });
    const after = applySaved(own, saved);
    expect(after.stations.square).to.deep.equal({ ...own.stations.square, size: 2048 });
    expect(after.stations.gauge.exposure).to.equal(1);
    expect(changesBetween(own, after).map(({ key }) => key)).to.deep.equal(['size', 'exposure']);
  });

  it('hold chosen stations alone', () => {
    const saved = sectionsToSave(source, ['gauge']);
    expect(sectionsOf(saved)).to.deep.equal(['gauge']);
    expect(applySaved(newRecipe(), saved).stations.square).to.deep.equal(newRecipe().stations.square);
  });

  it('come back from JSON as they were, and what is not sound is refused by name', () => {
    const saved = sectionsToSave(source, STATION_NAMES);
    expect(parseSaved(JSON.parse(JSON.stringify(saved)))).to.deep.equal(saved);
    expect(() => parseSaved({})).to.throw(/has no stations/);
    expect(() => parseSaved('gauge')).to.throw(/has no stations/);
    expect(() => parseSaved({ gauge: { exposur: 1 } })).to.throw(/gauge\.exposur/);
    expect(() => parseSaved({ gauge: { exposure: 99 } })).to.throw(/at most 4/);
    expect(() => parseSaved({ square: { turnDegrees: 3 } })).to.throw(/square\.turnDegrees.*one picture/);
  });
});
