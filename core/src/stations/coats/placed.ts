import * as v from 'valibot';
import { srgbToLinear } from '../../colour/srgb.ts';
import { visiting } from '../../outline/fill.ts';
import { rectangle, turned } from '../../outline/outline.ts';
import { MIRROR } from '../../raster/edges.ts';
import { Raster } from '../../raster/raster.ts';
import { repeated } from '../../sampling/repeat.ts';
import { resizeArea } from '../../sampling/resize.ts';
import { sampleBilinear } from '../../sampling/sample.ts';
import { choice, data, number, type Values } from '../../settings/kinds.ts';
import type { Frame } from '../../tile/frame.ts';
import { type PictureRef, refSchema } from '../../tile/given.ts';
import { inParts, runSteps } from '../../work/steps.ts';
import { fieldOf } from './mask/pattern.ts';
import { MIDDLE, ROTATION } from './place.ts';
import type { Scene } from './scene.ts';

/** A picture and where it lies on the tile. */
export const PLACED = {
  picture: data<PictureRef | null>({
    label: 'Picture',
    help: 'By the SHA-256 of its file.',
    default: null,
    schema: v.nullable(refSchema),
    example: `{"sha256":"${'0'.repeat(64)}","width":512,"height":512}`,
    words: (value) => value?.name ?? (value ? 'supplied' : 'none'),
  }),
  placing: choice({
    label: 'Placing',
    help: 'Repeated over the tile, for a picture that tiles by itself; or once, at a place.',
    default: 'repeated',
    options: ['repeated', 'once'],
    names: ['Repeated', 'Once'],
  }),
  repeats: number({
    label: 'Repeats',
    help: 'How often along the tile’s longer edge.',
    default: 1,
    min: 1,
    max: 32,
    step: 1,
    unit: '×',
  }),
  ...MIDDLE,
  widthMm: number({
    label: 'Width',
    help: 'Of the picture on the tile; its height follows.',
    default: 300,
    min: 1,
    max: 20000,
    step: 1,
    unit: 'mm',
  }),
  degrees: ROTATION,
};
export type Placed = Values<typeof PLACED>;

/** The picture that is referred to. */
export const pictureOfPlaced = ({ picture }: Placed): Record<string, PictureRef> =>
  picture ? { picture } : {};

/** Pictures of OpenEXR hold linear values, all others sRGB colour. */
const isLinear = (ref: PictureRef): boolean => /\.exr$/i.test(ref.name ?? '');

/** Colour planes of codes as linear light, in place; the alpha stays. */
function decode(picture: Raster): Raster {
  for (const plane of picture.planes.slice(0, 3)) {
    for (let i = 0; i < plane.length; i++) plane[i] = srgbToLinear(plane[i]);
  }
  return picture;
}

/** The picture placed once: four planes, the alpha 0 around it. */
async function onceOn(picture: Raster, placed: Placed, frame: Frame, { context }: Scene): Promise<Raster> {
  const { width, height, edges } = frame;
  const { widthMm, heightMm } = fieldOf(frame);
  const tall = (placed.widthMm * picture.height) / picture.width;
  const wanted = Math.max(1, Math.round((placed.widthMm / widthMm) * width));
  const small =
    wanted < picture.width
      ? resizeArea(picture, wanted, Math.max(1, Math.round((wanted * picture.height) / picture.width)))
      : picture;
  const out = Raster.filled(width, height, 4);
  const pixel = Math.sqrt((widthMm / width) * (heightMm / height));
  const angle = (placed.degrees * Math.PI) / 180;
  const [sin, cos] = [Math.sin(angle), Math.cos(angle)];
  const canvas = { width, height, edges, unitsAcross: widthMm, unitsDown: heightMm };
  const outline = turned(rectangle(placed.widthMm, tall), placed.degrees);
  await runSteps(
    visiting(canvas, placed, outline, pixel, (i, distance, dx, dy) => {
      const share = Math.min(1, Math.max(0, 0.5 - distance / pixel));
      if (share <= out.planes[3][i]) return;
      const u = (dx * cos + dy * sin) / placed.widthMm + 0.5;
      const w = (dy * cos - dx * sin) / tall + 0.5;
      const at = (c: number) =>
        sampleBilinear(
          small.planes[c],
          small.width,
          small.height,
          u * small.width - 0.5,
          w * small.height - 0.5,
          MIRROR,
        );
      for (let c = 0; c < 3; c++) out.planes[c][i] = at(c);
      out.planes[3][i] = share * at(3);
    }),
    context.checkpoint,
  );
  return out;
}

/**
 * A picture on the tile: red, green and blue (linear light where `asColour`, else its codes) and how far it covers, 0..1. Null
 * where none is chosen.
 */
export async function placedPicture(placed: Placed, scene: Scene, asColour: boolean): Promise<Raster | null> {
  const { frame, context } = scene;
  const ref = placed.picture;
  if (!ref) return null;
  const { picture: _picture, ...place } = placed;
  return context.part('placed', [ref.sha256, place, asColour, frame.edgeMetres], async () => {
    const codes = await context.picture(ref, frame.size, 4);
    const own = codes.mapPlanes((plane) => plane.slice());
    const picture = asColour && !isLinear(ref) ? decode(own) : own;
    if (placed.placing === 'repeated')
      return repeated(picture, frame, { count: placed.repeats, quarters: 0 });
    return onceOn(picture, placed, frame, scene);
  });
}

/** The mean of a picture's colour planes times its alpha. */
export async function placedTone(placed: Placed, scene: Scene): Promise<Float32Array | 0> {
  const picture = await placedPicture(placed, scene, false);
  if (!picture) return 0;
  const [r, g, b, a] = picture.planes;
  const out = new Float32Array(r.length);
  await runSteps(
    inParts(out.length, (from, to) => {
      for (let i = from; i < to; i++) out[i] = ((r[i] + g[i] + b[i]) / 3) * a[i];
    }),
    scene.context.checkpoint,
  );
  return out;
}
