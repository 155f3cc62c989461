import { encodeSrgbPlane } from '../colour/encode-plane.ts';
import { oklabPlanes } from '../colour/oklab-planes.ts';
import { atrousSmooth } from '../filters/atrous-smooth.ts';
import { gaussianFirBand } from '../filters/gaussian-fir.ts';
import { recursiveColumns, recursiveRows } from '../filters/gaussian-recursive.ts';
import { fourier } from '../raster/fourier.ts';
import { logPlane } from '../raster/log-plane.ts';
import { raisePlane } from '../raster/raise-plane.ts';
import { resampleBlock } from '../raster/resample-block.ts';
import { rowResampler } from '../raster/resample-row.ts';
import { screenCodes } from '../raster/screen-codes.ts';
import { sumPlanes } from '../raster/sum-planes.ts';
import { transposePlane } from '../raster/transpose-plane.ts';
import { weighBand } from '../raster/weigh.ts';
import { quantise } from '../stations/crate/codes.ts';
import { divideRows } from '../stations/even/divide-rows.ts';
import { toneBlock } from '../stations/gauge/tone-block.ts';
import { blendChannel } from '../stations/join/blend-channel.ts';
import { cutCosts } from '../stations/join/cut-costs.ts';
import { searchCut } from '../stations/join/cut-search.ts';
import { nearestPatches } from '../stations/join/score/nearest.ts';
import { addSteps } from '../stations/join/steps.ts';
import { shippedSlopes } from '../stations/proof/shipped-slopes.ts';
import { standOut } from '../stations/proof/stand-out.ts';
import { makingNormals } from '../stations/relief/normal.ts';
import { sweepHorizons } from '../stations/relief/sweep.ts';
import { takeCodes } from '../stations/source/take-codes.ts';
import { wasmKernels } from './wasm.ts';

/** What is computed often enough to have a twin in WASM: each the same result, to a stated tolerance. */
export interface Kernels {
  atrousSmooth: typeof atrousSmooth;
  fourier: typeof fourier;
  gaussianFirBand: typeof gaussianFirBand;
  recursiveColumns: typeof recursiveColumns;
  recursiveRows: typeof recursiveRows;
  rowResampler: typeof rowResampler;
  resampleBlock: typeof resampleBlock;
  nearestPatches: typeof nearestPatches;
  addSteps: typeof addSteps;
  makingNormals: typeof makingNormals;
  toneBlock: typeof toneBlock;
  oklabPlanes: typeof oklabPlanes;
  encodeSrgbPlane: typeof encodeSrgbPlane;
  blendChannel: typeof blendChannel;
  searchCut: typeof searchCut;
  cutCosts: typeof cutCosts;
  sweepHorizons: typeof sweepHorizons;
  weighBand: typeof weighBand;
  sumPlanes: typeof sumPlanes;
  screenCodes: typeof screenCodes;
  quantise: typeof quantise;
  takeCodes: typeof takeCodes;
  standOut: typeof standOut;
  transposePlane: typeof transposePlane;
  logPlane: typeof logPlane;
  raisePlane: typeof raisePlane;
  divideRows: typeof divideRows;
  shippedSlopes: typeof shippedSlopes;
}

/** In plain TypeScript: what the twins are held to, and what is used where WASM with SIMD is not to be had. */
export const REFERENCE: Kernels = {
  atrousSmooth,
  fourier,
  gaussianFirBand,
  recursiveColumns,
  recursiveRows,
  rowResampler,
  resampleBlock,
  nearestPatches,
  addSteps,
  makingNormals,
  toneBlock,
  oklabPlanes,
  encodeSrgbPlane,
  blendChannel,
  searchCut,
  cutCosts,
  sweepHorizons,
  weighBand,
  sumPlanes,
  screenCodes,
  quantise,
  takeCodes,
  standOut,
  transposePlane,
  logPlane,
  raisePlane,
  divideRows,
  shippedSlopes,
};

/** The kernels in use, chosen once at load. */
export const KERNELS: Kernels = wasmKernels(REFERENCE) ?? REFERENCE;
