/**
 * Settings by which a set that tiles and is calibrated stays as it is: the whole picture, its light, its edges and its
 * values.
 */
export const UNCHANGED = {
  square: { share: 1 },
  even: { amount: 0, colour: 0 },
  join: { method: 'none' },
  gauge: { fit: false, hold: false },
} as const;
