import { KERNELS } from '../kernels/kernels.ts';
import { Raster } from '../raster/raster.ts';

/** Every channel turned over its diagonal: rows become columns. */
export const transpose = ({ width, height, planes }: Raster): Raster =>
  new Raster(
    height,
    width,
    planes.map((plane) => KERNELS.transposePlane(plane, width, height)),
  );
