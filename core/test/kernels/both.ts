import { KERNELS } from '../../src/kernels/kernels.ts';
import { REFERENCE } from '../../src/kernels/registry.ts';

const TWINS = { ...KERNELS };

/** The same tests twice: with the kernels in WASM, and with the plain ones. */
export function withBothKernels(name: string, tests: () => void): void {
  for (const [words, kernels] of [
    ['in WASM', TWINS],
    ['in plain TypeScript', REFERENCE],
  ] as const) {
    describe(`${name}, ${words}`, () => {
      before(() => void Object.assign(KERNELS, kernels));
      after(() => void Object.assign(KERNELS, TWINS));
      tests();
    });
  }
}
