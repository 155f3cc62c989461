import * as v from 'valibot';
import { Problem } from '../../problem.ts';
import { Raster } from '../../raster/raster.ts';
import { choice, data, group, number } from '../../settings/kinds.ts';
import { inBands } from '../../team/in-bands.ts';
import { mapGiven } from '../../tile/given.ts';
import { SHAPES, sidesOf } from '../../tile/shape.ts';
import type { Remedy } from '../../verdict.ts';
import type { SourceOutput } from '../source/output.ts';
import { source } from '../source/station.ts';
import { NOTHING_TO_DECIDE, station } from '../station.ts';
import { type Crop, cropMapper, cropTurn, isFrame, marginsIn, shareOutside } from './geometry.ts';
import { type BendMesh, isFolded, meshSchema } from './mesh.ts';
import { neededShortEdge } from './needed.ts';
import type { SquareOutput } from './output.ts';
import type { Corners } from './points.ts';
import type { Framing } from './resample-band.ts';
import { resampleBand } from './resample-band.ts';
import { ENOUGH, fittingSize, SIZES } from './sizes.ts';
import { views } from './views.ts';

const GROUPS = {
  crop: group({ id: 'crop', title: 'Crop' }),
};

const share = v.pipe(v.number(), v.minValue(-1), v.maxValue(2));
const point = v.tuple([share, share]);

const settings = {
  size: choice({
    label: 'Size',
    help: 'Longer edge of the finished tile in pixels, a power of two.',
    default: 1024,
    options: SIZES,
    names: SIZES.map((size) => `${size} px`),
  }),
  shape: choice({
    ofPicture: true,
    label: 'Shape',
    help: 'Width to height of the tile: square, twice as wide, or twice as high.',
    default: '1:1',
    options: SHAPES,
    names: ['Square', '2 : 1, wide', '1 : 2, tall'],
  }),
  edgeMetres: number({
    ofPicture: true,
    label: 'Edge',
    help: 'Real-world length of the tile’s longer edge.',
    default: 1,
    min: 0.01,
    max: 100,
    step: 0.01,
    unit: 'm',
  }),
  centreX: number({
    ofPicture: true,
    label: 'Centre across',
    help: 'Where the crop sits across the photo, as a share of its width.',
    group: GROUPS.crop,
    default: 0.5,
    min: 0,
    max: 1,
    step: 0.001,
    unit: '',
  }),
  centreY: number({
    ofPicture: true,
    label: 'Centre down',
    help: 'Where the crop sits down the photo, as a share of its height.',
    group: GROUPS.crop,
    default: 0.5,
    min: 0,
    max: 1,
    step: 0.001,
    unit: '',
  }),
  share: number({
    ofPicture: true,
    label: 'Crop edge',
    help: 'Edge of the crop as a share of the largest that fits the photo. Below about 0.85 a margin is left for Join.',
    group: GROUPS.crop,
    default: 0.84,
    min: 0.05,
    max: 1,
    step: 0.001,
    unit: '',
  }),
  turnDegrees: number({
    ofPicture: true,
    label: 'Rotation',
    help: 'Turns the crop clockwise, to level what is slanted in the photo.',
    group: GROUPS.crop,
    default: 0,
    min: -45,
    max: 45,
    step: 0.05,
    unit: '°',
  }),
  corners: data<Corners | null>({
    ofPicture: true,
    label: 'Corners',
    help: 'Four corners in place of the upright crop, for a photo taken at a slant: upper left, upper right, lower right, lower left, as shares of the photo.',
    group: GROUPS.crop,
    default: null,
    schema: v.nullable(v.tuple([point, point, point, point])),
    example: '[[0.1,0.1],[0.9,0.12],[0.95,0.9],[0.05,0.88]]',
    words: (value) => (value ? 'four set by hand' : 'the upright crop'),
  }),
  bend: data<BendMesh | null>({
    ofPicture: true,
    label: 'Warp',
    help: 'A smooth warp that straightens bowed rows: 3 × 3 to 6 × 6 handles over the crop, each moved by fractions of the crop’s edge.',
    group: GROUPS.crop,
    default: null,
    schema: v.nullable(meshSchema),
    example: '{"across":3,"down":3,"moves":[[0,0],[0,0.02],[0,0],[0,0],[0,0.02],[0,0],[0,0],[0,0.02],[0,0]]}',
    words: (value) => (value ? `${value.across} × ${value.down} handles` : 'none'),
  }),
};

/** What maps of data hold. */
const UNIT = { low: 0, high: 1 };

/** Square: crop and turn, resampled once from the original, with a margin kept for Join. */
/** The largest size that the pixels of a crop support. */
const smaller = (cropPixels: number): Remedy => {
  const value = fittingSize(cropPixels);
  return {
    advice: 'Choose a smaller size or a larger crop: the missing detail is only interpolated.',
    words: `Use ${value} px`,
    settings: [{ station: 'square', key: 'size', value }],
  };
};

export const square = station({
  name: 'square',
  line: 'Crop, straighten, and set the real-world size.',
  settings,
  reads: [source],
  setsFrame: (chosen, photo, given) => {
    const size = given ?? chosen.size;
    return {
      size,
      ...sidesOf(chosen.shape, size),
      shape: chosen.shape,
      wantedSize: chosen.size,
      edgeMetres: chosen.edgeMetres,
      turnDegrees: cropTurn(photo.width, photo.height, chosen),
      photoShortEdge: neededShortEdge(chosen, size, photo),
    };
  },
  // Size and edge have their effect through the frame.
  cacheKey: ({ size: _size, edgeMetres: _edge, ...rest }) => rest,
  views,
  shows: 'crop',
  worksOn: 'photo',
  weight: 22,
  of: 'photo',
  ...NOTHING_TO_DECIDE,
  async run(input: SourceOutput, chosen, _decided: null, frame, context): Promise<SquareOutput> {
    // No more of the settings than that: it goes to other threads.
    const { corners, bend, shape, share, centreX, centreY, turnDegrees } = chosen;
    const crop: Crop = { corners, bend, shape, share, centreX, centreY, turnDegrees };
    const { originalWidth, originalHeight, picture } = input;
    if (crop.corners && !isFrame(crop.corners)) {
      throw new Problem(
        'bad_corners',
        'The four corners cross over or bend inwards, so they do not form a valid quadrilateral.',
        'Drag them apart so that they run upper left, upper right, lower right, lower left; or take the upright crop again.',
      );
    }
    if (crop.bend && isFolded(crop.bend)) {
      throw new Problem(
        'bad_bend',
        'The warp folds the image over itself.',
        'Move its handles apart, or take the bend away.',
      );
    }
    const shares = marginsIn(originalWidth, originalHeight, crop);
    const margins = {
      left: shares.left * frame.width,
      right: shares.right * frame.width,
      top: shares.top * frame.height,
      bottom: shares.bottom * frame.height,
    };
    const width = frame.width + margins.left + margins.right;
    const height = frame.height + margins.top + margins.bottom;
    const framing = {
      crop,
      sides: sidesOf(frame.shape, frame.size),
      margins: shares,
      out: { width, height },
    };
    const resample = (raster: Raster, held: Framing['held']) =>
      inBands(resampleBand, raster, { ...framing, held }, context.team, context.checkpoint);
    const { across, down } = cropMapper(originalWidth, originalHeight, crop);
    const alpha = input.alpha
      ? (await resample(new Raster(picture.width, picture.height, [input.alpha]), UNIT)).planes[0]
      : null;
    return {
      picture: await resample(picture, { low: 0 }),
      alpha,
      given: await mapGiven(input.given, (raster) => resample(raster, UNIT)),
      margins,
      cropPixels: Math.max(across, down),
      outside: shareOutside(originalWidth, originalHeight, crop),
    };
  },
  verdict(output, _input, _chosen, _decided, frame) {
    const held = output.cropPixels / frame.wantedSize;
    const outside = output.outside > 0;
    const few = held < ENOUGH;
    const margin = Math.min(
      output.margins.left + output.margins.right,
      output.margins.top + output.margins.bottom,
    );
    const advice = [
      outside ? 'Make the crop smaller or move it inside the photo: what lies outside is mirrored.' : '',
    ]
      .filter(Boolean)
      .join(' ');
    return {
      state: outside ? 'wrong' : few ? 'look' : 'fine',
      brief: outside ? 'crop leaves the photo' : `${frame.wantedSize} px · ${frame.edgeMetres} m`,
      sentence: `The crop has ${Math.round(output.cropPixels)} px of the photo for ${frame.wantedSize} px of the tile, ${Math.round(frame.wantedSize / frame.edgeMetres)} px/m.`,
      advice,
      remedies: few ? [smaller(output.cropPixels)] : [],
      figures: [
        { id: 'held', label: 'Photo pixels per tile pixel', value: held, unit: '', limit: ENOUGH },
        { id: 'margin', label: 'Margin kept for Join', value: (100 * margin) / frame.size, unit: '%' },
        { id: 'outside', label: 'Crop outside the photo', value: 100 * output.outside, unit: '%', limit: 0 },
      ],
    };
  },
});
