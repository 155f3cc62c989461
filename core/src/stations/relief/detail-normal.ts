import { Raster } from '../../raster/raster.ts';

/**
 * A detail normal laid onto a base normal by reoriented mapping: the detail is turned as the base is tilted, so that
 * neither flattens the other (Barré-Brisebois & Hill 2012). Unit vectors of one convention; the detail's slopes times `strength`.
 */
export function reoriented(base: Raster, detail: Raster, strength: number): Raster {
  const out = Raster.filled(base.width, base.height, 3);
  const [bx, by, bz] = base.planes;
  const [dx, dy, dz] = detail.planes;
  const [ox, oy, oz] = out.planes;
  for (let i = 0; i < bx.length; i++) {
    let ux = -dx[i] * strength;
    let uy = -dy[i] * strength;
    let uz = Math.max(1e-3, dz[i]);
    const inverse = 1 / Math.sqrt(ux * ux + uy * uy + uz * uz);
    ux *= inverse;
    uy *= inverse;
    uz *= inverse;
    const tz = bz[i] + 1;
    const along = (bx[i] * ux + by[i] * uy + tz * uz) / tz;
    const x = bx[i] * along - ux;
    const y = by[i] * along - uy;
    const z = Math.max(1e-3, tz * along - uz);
    const unit = 1 / Math.sqrt(x * x + y * y + z * z);
    ox[i] = x * unit;
    oy[i] = y * unit;
    oz[i] = z * unit;
  }
  return out;
}

/** Unit normals of codes 0..1, their green inverted where it points the other way. */
export function normalsOf(codes: Raster, isTurned: boolean): Raster {
  const out = Raster.filled(codes.width, codes.height, 3);
  const sign = isTurned ? -1 : 1;
  for (let i = 0; i < codes.planes[0].length; i++) {
    const x = 2 * codes.planes[0][i] - 1;
    const y = sign * (2 * codes.planes[1][i] - 1);
    const z = Math.max(1e-3, 2 * codes.planes[2][i] - 1);
    const inverse = 1 / Math.sqrt(x * x + y * y + z * z);
    out.planes[0][i] = x * inverse;
    out.planes[1][i] = y * inverse;
    out.planes[2][i] = z * inverse;
  }
  return out;
}
