/** Steps of a sequence that covers the unit square evenly (Roberts 2018). */
const STEPS = [0.7548776662466927, 0.5698402909980532] as const;

/** The k-th of points that cover the unit square evenly, however many of them are taken: 0 ≤ x, y < 1. */
export const evenPoint = (k: number): [number, number] => [
  (0.5 + STEPS[0] * k) % 1,
  (0.5 + STEPS[1] * k) % 1,
];
