import type { SourceRef } from '../pixels.ts';
import { Raster } from '../raster/raster.ts';

/** Maps that may be given instead of derived. All are data; normals lie as codes (n + 1)/2. */
export const GIVEN_MAPS = ['normal', 'height', 'occlusion', 'cavity', 'roughness', 'opacity'] as const;
export type GivenMap = (typeof GIVEN_MAPS)[number];

/** Given maps by name, each a picture of the same view as the source. */
export type GivenRefs = Partial<Record<GivenMap, SourceRef>>;
/** Their values 0..1, at whatever stage: one plane, three for normals. */
export type Given = Partial<Record<GivenMap, Raster>>;

/** Each given map through `change`, one after the other. */
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
 * Unit normals from codes 0..1, turned with the picture: the crop lies `turnDegrees` clockwise in the photo,
 * so its vectors turn the other way. `up` tells whether green points up or down in the picture.
 */
export function turnedNormals(codes: Raster, turnDegrees: number, up: boolean): Raster {
  const angle = ((up ? -1 : 1) * turnDegrees * Math.PI) / 180;
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
    out.planes[1][i] = q * inverse;
    out.planes[2][i] = n * inverse;
  }
  return out;
}
