import { Arena } from './arena.ts';
import { COMPILED } from './compiled.ts';
import type { Kernels } from './kernels.ts';
import { wasmAtrousSmooth } from './wasm-atrous.ts';
import { wasmBlendChannel } from './wasm-bands.ts';
import { wasmResampleBlock } from './wasm-block.ts';
import { wasmEncodeSrgbPlane, wasmOklabPlanes, wasmToneBlock } from './wasm-colour.ts';
import { wasmCutCosts, wasmSearchCut } from './wasm-cut.ts';
import { wasmFourier } from './wasm-fft.ts';
import { wasmGaussianFirBand } from './wasm-gaussian-fir.ts';
import { wasmRecursiveColumns, wasmRecursiveRows } from './wasm-gaussian-recursive.ts';
import { wasmSweepHorizons } from './wasm-horizon.ts';
import { wasmMakingNormals } from './wasm-normal.ts';
import {
  wasmDivideRows,
  wasmLogPlane,
  wasmRaisePlane,
  wasmScreenCodes,
  wasmSumPlanes,
} from './wasm-planes.ts';
import { wasmQuantise } from './wasm-quantise.ts';
import { wasmRowResampler } from './wasm-resample.ts';
import { wasmAddSteps, wasmNearestPatches } from './wasm-seam.ts';
import { wasmShippedSlopes } from './wasm-shipped-slopes.ts';
import { wasmStandOut } from './wasm-stand-out.ts';
import { wasmTakeCodes } from './wasm-take-codes.ts';
import { wasmTransposePlane } from './wasm-transpose.ts';
import { wasmWeighBand } from './wasm-weigh.ts';

/** What the compiled module offers. */
export interface Exports {
  memory: WebAssembly.Memory;
  atrousSmooth(...values: number[]): void;
  fftRows(...values: number[]): void;
  fftColumns(...values: number[]): void;
  gaussianFirBand(...values: number[]): void;
  recursiveColumns(...values: number[]): void;
  recursiveRows(...values: number[]): void;
  resampleRow(...values: number[]): number;
  resampleAlong(...values: number[]): void;
  resampleDown(...values: number[]): void;
  nearestPatch(...values: number[]): number;
  addSteps(...values: number[]): void;
  unitNormals(...values: number[]): void;
  gradient(...values: number[]): void;
  toneBlock(...values: number[]): void;
  toOklab(...values: number[]): void;
  encodeSrgb(...values: number[]): void;
  blendChannel(...values: number[]): void;
  searchCut(...values: number[]): number;
  seenPlanes(...values: number[]): void;
  cutCosts(...values: number[]): void;
  peaksOf(...values: number[]): void;
  sweepHorizons(...values: number[]): void;
  weighColumns(...values: number[]): void;
  weighRows(...values: number[]): void;
  sumPlanes(...values: number[]): void;
  screenCodes(...values: number[]): void;
  quantise8(...values: number[]): void;
  quantise16(...values: number[]): void;
  standOut(...values: number[]): void;
  takeCodes8(...values: number[]): void;
  takeCodes16(...values: number[]): void;
  transposeBlock(...values: number[]): void;
  logPlane(...values: number[]): void;
  raisePlane(...values: number[]): void;
  divideRows(...values: number[]): void;
  shippedSlopes(...values: number[]): void;
}

/** Does one call of a kernel with an instance and its memory. */
export type Call = <T>(work: (exports: Exports, arena: Arena) => T) => T;

/**
 * The kernels in WASM with SIMD; `reference` does what they are too small for. Null where WASM or its SIMD is not to be had,
 * or a page refuses to compile at once.
 */
export function wasmKernels(reference: Kernels): Kernels | null {
  let module: WebAssembly.Module;
  try {
    module = new WebAssembly.Module(Uint8Array.from(atob(COMPILED), (letter) => letter.charCodeAt(0)));
  } catch {
    return null;
  }
  // The one thing it may want of its host tells of an error, which it has none of.
  const instance = () => {
    const exports = new WebAssembly.Instance(module, { env: { abort() {} } }).exports as unknown as Exports;
    return { exports, arena: new Arena(exports.memory) };
  };
  let held: ReturnType<typeof instance> | null = null;
  const call: Call = (work) => {
    held ??= instance();
    const { exports, arena } = held;
    try {
      return work(exports, arena);
    } finally {
      // Memory of WASM never shrinks: what a large plane took goes with its instance.
      if (arena.isLarge) held = null;
    }
  };
  return {
    atrousSmooth: wasmAtrousSmooth(call),
    fourier: wasmFourier(instance, reference),
    gaussianFirBand: wasmGaussianFirBand(call),
    recursiveColumns: wasmRecursiveColumns(call, reference),
    recursiveRows: wasmRecursiveRows(call, reference),
    sweepHorizons: wasmSweepHorizons(call),
    cutCosts: wasmCutCosts(call),
    searchCut: wasmSearchCut(call),
    blendChannel: wasmBlendChannel(call),
    encodeSrgbPlane: wasmEncodeSrgbPlane(call),
    oklabPlanes: wasmOklabPlanes(call),
    toneBlock: wasmToneBlock(call, reference),
    makingNormals: wasmMakingNormals(call),
    addSteps: wasmAddSteps(call),
    nearestPatches: wasmNearestPatches(call),
    rowResampler: wasmRowResampler(instance),
    resampleBlock: wasmResampleBlock(call),
    weighBand: wasmWeighBand(call),
    sumPlanes: wasmSumPlanes(call),
    screenCodes: wasmScreenCodes(call),
    quantise: wasmQuantise(call),
    takeCodes: wasmTakeCodes(call),
    standOut: wasmStandOut(call),
    transposePlane: wasmTransposePlane(call, reference),
    logPlane: wasmLogPlane(call),
    raisePlane: wasmRaisePlane(call),
    divideRows: wasmDivideRows(call),
    shippedSlopes: wasmShippedSlopes(call),
  };
}
