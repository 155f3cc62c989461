import type { Surface } from '../../surface/surface.ts';

/** The finished surface; without coats it is made of the very planes of the stations before. */
export interface CoatsOutput extends Surface {
  /** How far coats lowered and raised the height, mm; both 0 where they left it alone. */
  addedMm: [number, number];
}
