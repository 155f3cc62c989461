/** The place on an axis of `n` that joins its own end at which a place `at` on it, before its start or beyond its end, comes in again. */
export const wrapped = (at: number, n: number): number => ((at % n) + n) % n;
