import {
  linearToSrgb,
  MAP_NAMES,
  PROFILES,
  Raster,
  STATION_NAMES,
  type StationOutputs,
} from '@zesty-tile/core';
import { expect } from 'chai';
import fc from 'fast-check';
import { readoutAt } from '../src/bench/floor/readout.ts';
import { viewRaster as raster, rgbaOf } from '../src/engine/view-pictures.ts';
import { FLOOR_VIEW_OF, stationOf, VIEW_NAMES, viewBefore } from '../src/engine/views.ts';
import { momentWords } from '../src/moment.ts';
import { channelWords } from '../src/stations/crate/channels.ts';

const plane = (v: number) => Float32Array.of(v, v, v, v);
const one = (v: number) => new Raster(2, 2, [plane(v)]);
const three = (v: number) => new Raster(2, 2, [plane(v), plane(v), plane(v)]);

const viewRaster = (...given: Parameters<typeof raster>) => raster(...given) as Raster | null;

describe('what the Floor shows', () => {
  const join = { picture: three(0.2), alpha: null, given: {}, before: async () => three(0.2) };
  const relief = { height: plane(0.4), normal: three(0), occlusion: null, cavity: plane(0.5) };

  it('a view is there as soon as its own station has run, and not before', () => {
    const upTo: Partial<StationOutputs> = { join, gauge: { albedo: three(0.3) } } as never;
    expect(viewRaster(upTo, 'joined')?.planes[0][0]).to.be.closeTo(0.2, 1e-6);
    expect(viewRaster(upTo, 'albedo')?.planes[0][0]).to.be.closeTo(0.3, 1e-6);
    for (const view of ['height', 'normal', 'cavity', 'roughness', 'gloss'] as const) {
      expect(viewRaster(upTo, view), view).to.equal(null);
    }
    const more = { ...upTo, relief } as Partial<StationOutputs>;
    for (const view of ['height', 'normal', 'cavity'] as const) {
      expect(stationOf(view)).to.equal('relief');
      expect(viewRaster(more, view), view).to.not.equal(null);
    }
    expect(viewRaster(more, 'gloss')).to.equal(null);
  });

  it('every view names a station, every station a view, and before lies earlier on the Course', () => {
    for (const view of VIEW_NAMES) {
      const before = viewBefore(view);
      if (!before) continue;
      const at = (name: typeof view) => STATION_NAMES.indexOf(stationOf(name));
      expect(at(before), `${view} from ${before}`).to.be.below(at(view));
    }
    expect(FLOOR_VIEW_OF.square).to.equal('photo');
    expect(VIEW_NAMES).to.include.members([...MAP_NAMES]);
  });

  it('light that was taken out is told in stops, orange where there was more of it, blue where less', () => {
    const square = { picture: three(0.4), margins: { left: 0, right: 0, top: 0, bottom: 0 } };
    const taken = viewRaster({ square, even: { picture: three(0.2) } } as never, 'light')!;
    expect(taken.planes[0][0]).to.be.closeTo(1, 1e-4);
    const [red, , blue] = rgbaOf(one(0.8), 'light');
    expect(red).to.be.above(blue + 100);
    const [cold, , sky] = rgbaOf(one(-0.8), 'light');
    expect(sky).to.be.above(cold + 100);
    expect([...rgbaOf(one(0), 'light').slice(0, 3)]).to.deep.equal([128, 128, 128]);
    const shown = {
      view: 'light' as const,
      width: 2,
      height: 2,
      rgba: new Uint8ClampedArray(16),
      repairs: 0,
    };
    const frame = { depthMm: 1, line: { line: '', ownLine: null }, language: 'y' as const, palette: [] };
    expect(readoutAt({ ...shown, planes: taken.planes }, 0, 0, frame)).to.match(/×2\.00 relative light/);
  });

  it('colours on screen are within one code of the exact curve, and clamp', () => {
    fc.assert(
      fc.property(fc.double({ min: -0.5, max: 1.5, noNaN: true }), (v) => {
        const exact = 255 * Math.min(1, Math.max(0, linearToSrgb(v)));
        expect(Math.abs(rgbaOf(three(v), 'albedo')[0] - exact)).to.be.at.most(1);
      }),
    );
    expect([...rgbaOf(one(0.25), 'roughness').slice(0, 4)]).to.deep.equal([64, 64, 64, 255]);
  });

  it('a reading of the albedo says where it stands against the band and which palette colour is near', () => {
    const shown = {
      view: 'albedo' as const,
      width: 2,
      height: 2,
      rgba: new Uint8ClampedArray(16),
      repairs: 0,
    };
    const read = (v: number, language: 'y' | 'srgb' | 'percent' = 'y') =>
      readoutAt({ ...shown, planes: three(v).planes }, 0, 0, {
        depthMm: 1,
        line: { line: 'fired-clay-red', ownLine: null },
        language,
        palette: [{ name: 'ash', hex: '#808080' }],
      });
    expect(read(0.2)).to.match(/Y 0\.200\ninside the band {2}0\.0\d\d from ash$/);
    expect(read(0.02)).to.include('below the band');
    expect(read(0.9)).to.include('above the band');
    expect(read(0.2, 'percent')).to.include('20.0 %');
    expect(read(0.2, 'srgb')).to.include('grey 124');
  });
});

describe('words', () => {
  it('a moment of today is its time alone, another day is named', () => {
    const now = new Date();
    now.setHours(9, 5, 0, 0);
    expect(momentWords(now)).to.equal('09:05');
    expect(momentWords(new Date(2020, 0, 31, 23, 59))).to.match(/2020.*, 23:59$/);
  });

  it('a file of a crate says what is in each channel', () => {
    const { packed, 'two-maps': two } = PROFILES;
    expect(channelWords(packed.files[2])).to.equal('Occlusion in red, Roughness in green, Metallic in blue');
    expect(channelWords(packed.files[0])).to.equal('Albedo');
    expect(channelWords(two.files[0])).to.equal('Albedo with 0.5 of its occlusion, Opacity in alpha');
    expect(
      channelWords({
        ...packed.files[0],
        channels: [{ value: 0.5 }, { map: 'gloss', plane: 0, turned: true }, { value: 1 }],
      }),
    ).to.equal('0.5 in red, Gloss inverted in green, 1 in blue');
  });
});
