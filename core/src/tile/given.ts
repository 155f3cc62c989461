import * as v from 'valibot';
import { Raster } from '../raster/raster.ts';

/**
 * Maps that may be given instead of derived. Specular and emission are colours, all others data; normals lie as codes (n + 1)/2. Gloss represents
 * roughness inverted. Specular is F0 as a colour; the picture it comes with is then the diffuse colour.
 */
export const GIVEN_MAPS = [
  'normal',
  'height',
  'occlusion',
  'cavity',
  'roughness',
  'gloss',
  'metallic',
  'specular',
  'opacity',
  'emission',
] as const;
export type GivenMap = (typeof GIVEN_MAPS)[number];

const side = v.pipe(v.number(), v.integer(), v.minValue(1));
/** Whether a supplied map has one plane, so that it may be one channel of a packed picture. */
export const isOnePlane = (map: GivenMap): boolean => map !== 'normal' && !isGivenColour(map);

/** Whether a supplied map goes through the sRGB curve. */
export const isGivenColour = (map: GivenMap): boolean => map === 'specular' || map === 'emission';

/** A stored picture by its content. */
export const refSchema = v.strictObject({
  sha256: v.pipe(v.string(), v.regex(/^[0-9a-f]{64}$/, 'must be 64 hexadecimal digits')),
  width: side,
  height: side,
  /** Name of the file as it was given. */
  name: v.optional(v.string()),
});

/** A stored picture that holds a map: in its first channels, or in one that is named. */
const givenRefSchema = v.strictObject({
  ...refSchema.entries,
  /** Which channel of a packed picture holds the map: 0 red, 1 green, 2 blue, 3 alpha. Maps of one plane alone. */
  channel: v.optional(v.picklist([0, 1, 2, 3], 'must be 0, 1, 2 or 3')),
});

/** Supplied maps by name, each a picture of the same view as the source. */
export const givenSchema = v.strictObject(
  Object.fromEntries(
    GIVEN_MAPS.map((map) => [map, v.optional(isOnePlane(map) ? givenRefSchema : refSchema)]),
  ) as Record<GivenMap, v.OptionalSchema<typeof givenRefSchema, undefined>>,
);
export type PictureRef = v.InferOutput<typeof refSchema>;
export type GivenRefs = v.InferOutput<typeof givenSchema>;

/** Sides of pictures of one view may differ by this share in their proportion. */
const SHAPE_SLACK = 0.01;

interface Sides {
  width: number;
  height: number;
}

/** Whether two pictures have the same proportions, so that they can show the same view. */
export const isSameShape = (a: Sides, b: Sides): boolean =>
  Math.abs((a.width / a.height) * (b.height / b.width) - 1) <= SHAPE_SLACK;

/** Their values 0..1, at whatever stage: one plane, three for normals (as codes) and for colours (linear RGB). */
export type Given = Partial<Record<GivenMap, Raster>>;

/** Each supplied map through `change`, one after the other. */
export async function mapGiven(
  given: Given,
  change: (raster: Raster, map: GivenMap) => Promise<Raster> | Raster,
): Promise<Given> {
  const out: Given = {};
  for (const [map, raster] of Object.entries(given) as [GivenMap, Raster][])
    out[map] = await change(raster, map);
  return out;
}

/**
 * Unit normals from codes 0..1 whose green points up, turned with the picture: the crop lies `turnDegrees`
 * clockwise in the photo, so its vectors turn the other way. `up` tells whether green is to point up or down in
 * what comes out.
 */
export function turnedNormals(codes: Raster, turnDegrees: number, up: boolean): Raster {
  const angle = (-turnDegrees * Math.PI) / 180;
  const c = Math.cos(angle);
  const s = Math.sin(angle);
  const [x, y, z] = codes.planes;
  const out = Raster.filled(codes.width, codes.height, 3);
  for (let i = 0; i < x.length; i++) {
    const a = 2 * x[i] - 1;
    const b = 2 * y[i] - 1;
    const n = Math.max(1e-3, 2 * z[i] - 1);
    const p = a * c + b * s;
    const q = -a * s + b * c;
    const inverse = 1 / Math.sqrt(p * p + q * q + n * n);
    out.planes[0][i] = p * inverse;
    out.planes[1][i] = (up ? q : -q) * inverse;
    out.planes[2][i] = n * inverse;
  }
  return out;
}
