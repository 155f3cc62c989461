/** Where a place lies in a pattern. Lengths are in units of the pattern's field. */
export interface Place {
  /** Distance to the nearest edge of its cell; below 0 outside of any. */
  edge: number;
  /** A whole number that names the cell. */
  cell: number;
}

/** A tile on which a pattern is laid out: its sides in mm. */
export interface Field {
  widthMm: number;
  heightMm: number;
}

/**
 * A pattern in whole counts across and down a field, as a function that says where a place (in mm from the top left) lies. It
 * repeats with the field.
 */
export type Layout = (x: number, y: number, out: Place) => void;

export interface Counts {
  across: number;
  down: number;
  /** By how much of a cell each row is shifted against the one above, for those that shift. */
  shift: number;
  /** How far rows and cells stray at random, 0..1 of half a cell. */
  jitter: number;
  /** How far corners are rounded, mm. */
  roundMm: number;
  /** Half the width of the joints, mm: what is rounded is the face between them. */
  jointMm: number;
  seed: number;
}

export const modulo = (value: number, by: number): number => value - by * Math.floor(value / by);

/**
 * Distance from the border of a rectangle inwards, its corners rounded at a distance of half a joint inside: negative outside.
 * `x`, `y` are from its middle.
 */
export function inRectangle(
  x: number,
  y: number,
  halfWidth: number,
  halfHeight: number,
  { roundMm, jointMm }: Pick<Counts, 'roundMm' | 'jointMm'>,
): number {
  const joint = jointMm / 2;
  const round = Math.min(roundMm, Math.max(0, Math.min(halfWidth, halfHeight) - joint));
  const dx = Math.abs(x) - (halfWidth - joint - round);
  const dy = Math.abs(y) - (halfHeight - joint - round);
  // Distance to the face, negative within it.
  const outside = dx > 0 && dy > 0 ? Math.sqrt(dx * dx + dy * dy) : Math.max(0, dx, dy);
  const inside = Math.min(0, Math.max(dx, dy));
  return joint - (outside + inside - round);
}
