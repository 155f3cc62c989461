import { blurPlanes } from '../../../filters/blur-planes.ts';
import { lightnessOf } from '../../../filters/lightness.ts';
import { takingLuminance } from '../../../planes/luminance.ts';
import { mapping } from '../../../planes/mapped.ts';
import { summing } from '../../../planes/summing.ts';
import { choice, number } from '../../../settings/kinds.ts';
import { statistics } from '../../../statistics/statistics.ts';
import type { SurfaceChannel } from '../../../surface/surface.ts';
import { sharedCopy } from '../../../team/team.ts';
import { GIVEN_MAPS, type GivenMap, isOnePlane } from '../../../tile/given.ts';
import { runSteps } from '../../../work/steps.ts';
import { sigmaOf } from '../../relief/scale.ts';
import type { Layers } from '../layers.ts';
import type { Scene } from '../scene.ts';
import { partKind } from './part.ts';

export const RANGE_MAPS = [
  'tone',
  'luminance',
  'height',
  'slope',
  'facing',
  'cavity',
  'occlusion',
  'wear',
  'roughness',
  'metallic',
  'opacity',
  'supplied',
  'joints',
] as const;
/** Words for each of them. */
export const RANGE_NAMES = [
  'Tone',
  'Luminance',
  'Height',
  'Slope (of 90°)',
  'Facing',
  'Cavity',
  'Occlusion',
  'Edge wear',
  'Roughness',
  'Metallic',
  'Opacity',
  'Supplied map',
  'Joints',
] as const;
type RangeMap = (typeof RANGE_MAPS)[number];

/** What of the layers below each of them is made from. */
export const READ_FROM: Record<RangeMap, readonly (keyof Layers)[]> = {
  tone: ['colour'],
  luminance: ['colour'],
  height: ['heightMm'],
  slope: ['heightMm'],
  facing: ['heightMm'],
  cavity: ['heightMm'],
  occlusion: ['heightMm'],
  wear: ['heightMm'],
  roughness: ['roughness'],
  metallic: ['metallic'],
  opacity: ['opacity'],
  supplied: [],
  joints: [],
};

const lean = (z: number) => (2 / Math.PI) * Math.acos(Math.min(1, z));

/** Deviations of local relief that a convex edge must stand out by to be worn wholly. */
const WORN = 3;

const SHORTEST_SIGMA = 0.6;

/** How far each place stands out of what surrounds it at a width: 0 where flat or hollow, 1 at a sharp convex edge. */
async function wear(scene: Scene, widthMm: number): Promise<Float32Array> {
  const { frame, below, context } = scene;
  const { checkpoint } = context;
  const sigma = Math.min(frame.size / 8, Math.max(SHORTEST_SIGMA, sigmaOf(widthMm, frame)));
  const [around] = await blurPlanes([{ plane: below.heightMm, sigma }], frame, context);
  const local = await runSteps(summing([below.heightMm, around], [1, -1], {}, around), checkpoint);
  const full = WORN * statistics(local).deviation;
  if (full < 1e-6) return local.fill(0);
  return runSteps(summing([local], [1 / full], { low: 0, high: 1 }, local), checkpoint);
}

/** How far the surface leans towards a direction in the picture: 0.5 where flat, 1 where it faces it. */
async function facing(scene: Scene, degrees: number): Promise<Float32Array> {
  const [nx, ny] = (await scene.normal()).planes;
  const turn = (degrees * Math.PI) / 180;
  // Degrees go clockwise from the top of the picture; the frame says which way green points.
  const [x, up] = [Math.sin(turn), Math.cos(turn) * scene.frame.green];
  return runSteps(
    mapping(nx, (value, i) => Math.min(1, Math.max(0, 0.5 + 0.5 * (value * x + ny[i] * up)))),
    scene.context.checkpoint,
  );
}

/** The height below as values 0..1 of what there is. */
async function heightShare({ below, context }: Scene): Promise<Float32Array> {
  const { min, max } = statistics(below.heightMm);
  const scale = max > min ? 1 / (max - min) : 0;
  return runSteps(summing([below.heightMm], [scale], { base: -min * scale }), context.checkpoint);
}

export interface RangeHow {
  /** Of edge wear. */
  widthMm: number;
  /** Of facing. */
  degrees: number;
  /** Which supplied map. */
  supplied: GivenMap;
}

/** Values of a map, and whether their plane was made for whoever asked. */
interface MapValues {
  of: SurfaceChannel;
  isOwn: boolean;
}

const own = (of: Float32Array): MapValues => ({ of, isOwn: true });
/** Others hold them too. What a tile does not have is 0. */
const borrowed = (of: SurfaceChannel | null): MapValues => ({ of: of ?? 0, isOwn: false });

/** A supplied map as values 0..1: of a normal map how far it leans, of a colour its luminance. */
async function suppliedMap({ input, context }: Scene, map: GivenMap): Promise<MapValues> {
  const given = input.style.given[map];
  if (!given) return borrowed(null);
  if (isOnePlane(map)) return borrowed(given.planes[0]);
  const values = map === 'normal' ? mapping(given.planes[2], lean) : takingLuminance(given);
  return own(await runSteps(values, context.checkpoint));
}

/** The values 0..1 of a map below; 0 where the tile has none. */
export async function valuesOf(
  scene: Scene,
  map: RangeMap,
  { widthMm, degrees, supplied }: RangeHow,
): Promise<MapValues> {
  const { below, context } = scene;
  switch (map) {
    case 'tone':
      return own(await lightnessOf(below.colour, context));
    case 'supplied':
      return suppliedMap(scene, supplied);
    case 'joints':
      return borrowed(scene.input.relief.joints);
    case 'luminance':
      return own(await runSteps(takingLuminance(below.colour), context.checkpoint));
    case 'height':
      return own(await heightShare(scene));
    case 'slope':
      return own(await runSteps(mapping((await scene.normal()).planes[2], lean), context.checkpoint));
    case 'facing':
      return own(await facing(scene, degrees));
    case 'cavity':
      return borrowed(await scene.cavity());
    case 'occlusion':
      return borrowed(await scene.occlusion());
    case 'wear':
      return own(await wear(scene, widthMm));
    case 'opacity':
      return borrowed(below.opacity ?? 1);
    default:
      return borrowed(below[map]);
  }
}

/** What has some values of a map below. A map that the tile does not have selects nothing. */
export const range = partKind({
  title: 'Map',
  settings: {
    map: choice({
      label: 'Map',
      help: 'The map whose values are selected. Edge wear: how far a place stands out at a width. Facing: how far it leans towards a direction.',
      default: 'cavity',
      options: RANGE_MAPS,
      names: RANGE_NAMES,
    }),
    widthMm: number({
      label: 'Width',
      help: 'How broad the edges are that wear.',
      default: 10,
      min: 0.2,
      max: 1000,
      step: 0.2,
      unit: 'mm',
    }),
    supplied: choice({
      label: 'Which',
      help: 'The map that was supplied with the source. One that was not selects nothing.',
      default: 'occlusion',
      options: GIVEN_MAPS,
      names: GIVEN_MAPS.map((map) => map[0].toUpperCase() + map.slice(1)),
    }),
    degrees: number({
      label: 'Direction',
      help: 'Which way a place faces, clockwise from the top of the picture.',
      default: 0,
      min: -180,
      max: 180,
      step: 1,
      unit: '°',
    }),
  },
  reads: ({ map }) => [...READ_FROM[map]],
  async values({ map, ...how }, scene) {
    const { of, isOwn } = await valuesOf(scene, map, how);
    return isOwn || typeof of === 'number' ? of : sharedCopy(of, scene.context.team);
  },
});
