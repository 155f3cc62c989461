/** 0 up to `low`, 1 from `high` on, smooth in between (cubic Hermite). */
export function smoothStep(low: number, high: number, value: number): number {
  const t = Math.min(1, Math.max(0, (value - low) / (high - low)));
  return t * t * (3 - 2 * t);
}
