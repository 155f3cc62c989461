import { setConsoleFunction } from 'three';

/** The renderer’s binding still makes a clock of the old kind on every opening; nothing here can change that. */
const OF_OTHERS = /^THREE\.Clock: This module has been deprecated/;

/** Passes on what the 3D library says, but for what is about other packages and leads nowhere. */
export function hearThree(): void {
  setConsoleFunction((type: 'log' | 'warn' | 'error', message: string, ...more: unknown[]) => {
    if (!OF_OTHERS.test(message)) console[type](message, ...more);
  });
}
