import { linearOfHex } from '../../colour/hex.ts';
import { linearToOklab } from '../../colour/oklab.ts';
import { KERNELS } from '../../kernels/kernels.ts';
import { takingLuminance } from '../../planes/luminance.ts';
import { madeInParts } from '../../planes/made-in-parts.ts';
import { mapping } from '../../planes/mapped.ts';
import type { Raster } from '../../raster/raster.ts';
import type { Grey } from '../../tile/height-reading.ts';
import type { Steps } from '../../work/steps.ts';

/** OKLab distance at which a colour is only half as near. */
const NEAR = 0.08;

/** How near each pixel's colour is to one: 1 there, a half at 0.08 of OKLab, towards 0 beyond (a Gaussian). */
function nearnessTo(planes: Float32Array[], hex: string): Float32Array {
  const [L, A, B] = linearToOklab(...linearOfHex(hex));
  const [l, a, b] = KERNELS.oklabPlanes(planes);
  const out = new Float32Array(l.length);
  const scale = Math.LN2 / NEAR ** 2;
  for (let i = 0; i < out.length; i++) {
    out[i] = Math.exp(-scale * ((l[i] - L) ** 2 + (a[i] - A) ** 2 + (b[i] - B) ** 2));
  }
  return out;
}

/** The grey of a linear picture from which height is read: luminance, the darkest channel, one channel, or nearness to a colour (#rrggbb). */
export function* greyOf(picture: Raster, grey: Grey, colour: string): Steps<Float32Array> {
  const [r, g, b] = picture.planes;
  switch (grey) {
    case 'luminance':
      return yield* takingLuminance(picture);
    case 'darkest':
      return yield* mapping(r, (value, i) => Math.min(value, g[i], b[i]));
    case 'red':
      return r;
    case 'green':
      return g;
    case 'blue':
      return b;
    case 'nearness':
      return yield* madeInParts(r.length, (from, to) =>
        nearnessTo(
          picture.planes.map((plane) => plane.subarray(from, to)),
          colour,
        ),
      );
  }
}
