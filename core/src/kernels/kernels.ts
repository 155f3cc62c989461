import { atrousSmooth } from '../filters/atrous-smooth.ts';
import { gaussianFir } from '../filters/gaussian-fir.ts';
import { gaussianRecursive } from '../filters/gaussian-recursive.ts';
import { rowResampler } from '../raster/resample-row.ts';
import { weighColumns, weighRows } from '../raster/weigh.ts';
import { wasmKernels } from './wasm.ts';

/** What is computed often enough to have a twin in WASM: each the same result, to a stated tolerance. */
export interface Kernels {
  atrousSmooth: typeof atrousSmooth;
  gaussianFir: typeof gaussianFir;
  gaussianRecursive: typeof gaussianRecursive;
  rowResampler: typeof rowResampler;
  weighColumns: typeof weighColumns;
  weighRows: typeof weighRows;
}

/** In plain TypeScript: what the twins are held to, and what is used where WASM with SIMD is not to be had. */
export const REFERENCE: Kernels = {
  atrousSmooth,
  gaussianFir,
  gaussianRecursive,
  rowResampler,
  weighColumns,
  weighRows,
};

/** The kernels in use, chosen once at load. */
export const KERNELS: Kernels = wasmKernels(REFERENCE) ?? REFERENCE;
