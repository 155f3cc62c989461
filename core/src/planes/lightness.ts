import { KERNELS } from '../kernels/kernels.ts';
import type { Raster } from '../raster/raster.ts';
import type { Steps } from '../work/steps.ts';
import { madeInParts } from './made-in-parts.ts';

/** Lightness of a picture in linear RGB as the eye has it, 0..1: L of OKLab (Ottosson 2020). */
export const takingLightness = ({ planes }: Raster): Steps<Float32Array> =>
  madeInParts(
    planes[0].length,
    (from, to) => KERNELS.oklabPlanes(planes.map((plane) => plane.subarray(from, to)))[0],
  );
