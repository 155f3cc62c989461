/** Where the sun stands: clockwise from the top of the view, and its height, in degrees. */
export interface Sun {
  turn: number;
  rise: number;
}

/** One light beside the sun, far away. */
export interface Lamp extends Sun {
  /** #rrggbb. */
  colour: string;
  strength: number;
}

/** So many lights may burn beside the sun. */
export const MOST_LAMPS = 4;

/** A new lamp, off to one side of those that burn. */
export const newLamp = (count: number): Lamp => ({
  turn: (60 + 97 * count) % 360,
  rise: 30,
  colour: '#ffd9a0',
  strength: 1.5,
});

/** Where a light far away stands, the view's up being 90° high at the viewer. */
export function placeOf({ turn, rise }: Sun, away: number): [number, number, number] {
  const [a, b] = [(turn * Math.PI) / 180, (rise * Math.PI) / 180];
  const flat = Math.cos(b) * away;
  return [Math.sin(a) * flat, Math.cos(a) * flat, Math.sin(b) * away];
}
