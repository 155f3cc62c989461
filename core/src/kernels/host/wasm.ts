import { Arena } from './arena.ts';
import { COMPILED } from './compiled.ts';

/** What the compiled module offers. */
export interface Exports {
  memory: WebAssembly.Memory;
  atrousSmooth(...values: number[]): void;
  flowLines(...values: number[]): void;
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
  blendHeight(...values: number[]): void;
  blendPlanes(...values: number[]): void;
  combineCovers(...values: number[]): void;
  addSlopes(...values: number[]): void;
  gradientNoise(...values: number[]): void;
  cellNoise(...values: number[]): void;
  addLayer(...values: number[]): void;
  levelPlane(...values: number[]): void;
  lookUp(...values: number[]): void;
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
  shockEdges(...values: number[]): void;
  structureTensor(...values: number[]): void;
  oklabToRgb(...values: number[]): void;
  drawTo(...values: number[]): void;
  paintLight(...values: number[]): number;
  paintStrokes(...values: number[]): void;
  shippedSlopes(...values: number[]): void;
}

/** Does one call of a kernel with an instance and its memory. */
export type Call = <T>(work: (exports: Exports, arena: Arena) => T) => T;

/** An instance of the compiled module, and its memory. */
export interface Instance {
  exports: Exports;
  arena: Arena;
}

/** How kernels reach the compiled module. */
export interface WasmHost {
  call: Call;
  /** A new instance, whose memory is the caller's alone. */
  instance(): Instance;
}

/** The compiled module; null where WASM or its SIMD is not available, or a page refuses to compile at once. */
export function wasmHost(): WasmHost | null {
  let module: WebAssembly.Module;
  try {
    module = new WebAssembly.Module(Uint8Array.from(atob(COMPILED), (letter) => letter.charCodeAt(0)));
  } catch {
    return null;
  }
  // The one thing it may want of its host reports an error, which it has none of.
  const instance = (): Instance => {
    const exports = new WebAssembly.Instance(module, { env: { abort() {} } }).exports as unknown as Exports;
    return { exports, arena: new Arena(exports.memory) };
  };
  let kept: Instance | null = null;
  const call: Call = (work) => {
    kept ??= instance();
    const { exports, arena } = kept;
    try {
      return work(exports, arena);
    } finally {
      // Memory of WASM never shrinks: what a large plane took goes with its instance.
      if (arena.isLarge) kept = null;
    }
  };
  return { call, instance };
}
