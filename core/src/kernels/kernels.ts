import { wasmHost } from './host/wasm.ts';
import { REFERENCE, wasmKernels } from './registry.ts';

/** What is computed often enough to have a twin in WASM: each the same result, to a stated tolerance. */
export type Kernels = typeof REFERENCE;

const host = wasmHost();

/**
 * The kernels in use, chosen once at load: in WASM with SIMD, or the plain ones in TypeScript that they are tested against
 * where that is not available.
 */
export const KERNELS: Kernels = host ? wasmKernels(host) : REFERENCE;
