/** Whole factor by which a source may be reduced for a needed shorter side. */
export function reductionFor(source: { width: number; height: number }, shortEdge: number): number {
  return Math.max(1, Math.floor(Math.min(source.width, source.height) / shortEdge));
}
