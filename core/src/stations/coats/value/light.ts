import { Raster } from '../../../raster/raster.ts';
import { number } from '../../../settings/kinds.ts';
import { inParts, runSteps } from '../../../work/steps.ts';
import { valueKind } from './kind.ts';

/** Light that is painted into a colour. */
export interface PaintedLight {
  degrees: number;
  elevation: number;
  sun: number;
  sky: number;
  rim: number;
}

/**
 * How bright each place of unit normals is under a sun, an even sky and a rim of light along edges that face away from the sun;
 * level ground is 1. `green` is +1 where the normals' green points up in the picture.
 */
export function shadeOf(
  [nx, ny, nz]: readonly Float32Array[],
  occlusion: Float32Array | null,
  { degrees, elevation, sun, sky, rim }: PaintedLight,
  green: 1 | -1,
): (i: number) => number {
  const turn = (degrees * Math.PI) / 180;
  const height = (elevation * Math.PI) / 180;
  const [lx, ly, lz] = [
    Math.sin(turn) * Math.cos(height),
    Math.cos(turn) * Math.cos(height) * green,
    Math.sin(height),
  ];
  const level = sun * lz + sky;
  const scale = level > 0 ? 1 / level : 0;
  return (i) => {
    const direct = Math.max(0, nx[i] * lx + ny[i] * ly + nz[i] * lz);
    const open = occlusion ? occlusion[i] : 1;
    const away = Math.max(0, -(nx[i] * lx + ny[i] * ly));
    return scale * (sun * direct + sky * open * (0.5 + 0.5 * nz[i])) + rim * away * (1 - nz[i]);
  };
}

/** The colour below as it would look under a light, so that the light is painted in. */
export const light = valueKind({
  title: 'Baked light',
  channels: ['colour'],
  settings: {
    degrees: number({
      label: 'From',
      help: 'Where the sun is, clockwise from the top of the picture.',
      default: -45,
      min: -180,
      max: 180,
      step: 1,
      unit: '°',
    }),
    elevation: number({
      label: 'Elevation',
      help: 'How high the sun is.',
      default: 45,
      min: 2,
      max: 90,
      step: 1,
      unit: '°',
    }),
    sun: number({
      label: 'Sun',
      help: 'How strong the sun is.',
      default: 0.7,
      min: 0,
      max: 4,
      step: 0.05,
      unit: '×',
    }),
    sky: number({
      label: 'Sky',
      help: 'How strong the light from everywhere is; hollows get less of it where occlusion is derived.',
      default: 0.5,
      min: 0,
      max: 4,
      step: 0.05,
      unit: '×',
    }),
    rim: number({
      label: 'Rim',
      help: 'A light along what faces away from the sun.',
      default: 0,
      min: 0,
      max: 4,
      step: 0.05,
      unit: '×',
    }),
  },
  reads: () => ['colour', 'heightMm'],
  async value(given, _channel, scene) {
    const { below, context, frame } = scene;
    const normal = await scene.normal();
    const shade = shadeOf(normal.planes, await scene.occlusion(), given, frame.green);
    const planes = below.colour.planes.map((plane) => new Float32Array(plane.length));
    await runSteps(
      inParts(planes[0].length, (from, to) => {
        for (let i = from; i < to; i++) {
          const bright = shade(i);
          for (let c = 0; c < 3; c++) planes[c][i] = Math.min(1, below.colour.planes[c][i] * bright);
        }
      }),
      context.checkpoint,
    );
    return { kind: 'colour', of: new Raster(frame.width, frame.height, planes) };
  },
});
