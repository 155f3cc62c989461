import { KERNELS } from './kernels.ts';

/** Pixels as a screen takes them, by whichever kernel is in use. */
export const { screenCodes } = KERNELS;
