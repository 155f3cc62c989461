/** How luminance is mapped: gain, contrast about a pivot, soft hold at the limits. */
export interface Tone {
  gain: number;
  contrast: number;
  /** Y (after the gain) that contrast leaves alone. */
  pivot: number;
  /** Limits of Y to hold softly, or null. */
  hold: [number, number] | null;
}

/** Where the hold begins to bend, below and above. */
export const bends = ([low, high]: [number, number]): [number, number] => [
  Math.min(2 * low, low + (high - low) * 0.1),
  low + (high - low) * 0.82,
];

/** Held softly: unchanged well inside, bending towards the limits without a corner, never past them. */
export const softHold = (y: number, limits: [number, number]): number =>
  luminanceMap({ gain: 1, contrast: 1, pivot: 1, hold: limits })(y);

/** The Y that `softHold` brings to `y`; `y` must lie strictly inside the limits. */
export function undoHold(y: number, [low, high]: [number, number]): number {
  const [toe, shoulder] = bends([low, high]);
  if (y > shoulder) {
    const room = high - shoulder;
    return shoulder - room * Math.log(1 - (y - shoulder) / room);
  }
  if (y < toe) {
    const room = toe - low;
    return toe + room * Math.log(1 - (toe - y) / room);
  }
  return y;
}

/** Luminance through a tone, as a function of Y alone. */
export function luminanceMap({ gain, contrast, pivot, hold }: Tone): (y: number) => number {
  const turned =
    contrast === 1
      ? (y: number) => y * gain
      : (y: number) => (y <= 0 ? y * gain : pivot * ((y * gain) / pivot) ** contrast);
  if (!hold) return turned;
  const [low, high] = hold;
  const [toe, shoulder] = bends(hold);
  // Most of a tile lies between the bends, where nothing is held.
  return (y) => {
    const v = turned(y);
    if (v > shoulder)
      return shoulder + (high - shoulder) * (1 - Math.exp(-(v - shoulder) / (high - shoulder)));
    if (v < toe) return toe - (toe - low) * (1 - Math.exp(-(toe - v) / (toe - low)));
    return v;
  };
}
