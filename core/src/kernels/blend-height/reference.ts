/** How a height meets the height below it. */
export type HeightRule = 'add' | 'raise' | 'lower' | 'replace';

/**
 * Heights in mm blended in place, where they are covered, 0..1: *add* to what is below, *raise* it at least to it, *lower* it at
 * most to it, *replace* it. What lies above has `base` added; it and the cover are as long or have one value for all.
 */
export function blendHeight(
  below: Float32Array,
  above: Float32Array,
  cover: Float32Array,
  rule: HeightRule,
  base: number,
): void {
  const [a, c] = [above, cover].map((plane) => (plane.length === 1 && below.length !== 1 ? 0 : 1));
  for (let i = 0; i < below.length; i++) {
    const value = below[i];
    const own = base + above[a * i];
    const to =
      rule === 'add'
        ? value + own
        : rule === 'raise'
          ? Math.max(value, own)
          : rule === 'lower'
            ? Math.min(value, own)
            : own;
    below[i] = value + cover[c * i] * (to - value);
  }
}

export const reference = { blendHeight };
