/** How a hand is steadied. */
export interface Steadying {
  /** Length of the string by which the brush is pulled, in shares of the tile; 0 for none. */
  string: number;
  /** How much trembling is smoothed, 0 not at all to 1. */
  smooth: number;
}

/** Slowest movement is let through up to this many changes a second: without and with all smoothing. */
const CUTOFF = [30, 0.7];
/** How much faster movement is followed, in Hz for each tile a second; and how the speed is smoothed itself. */
const BETA = 12;
const SPEED_CUTOFF = 1;

type Place = [x: number, y: number];

/** Share of a new value that a low-pass of a cutoff in Hz takes after so many seconds. */
const shareOf = (cutoff: number, seconds: number): number => {
  const r = 2 * Math.PI * cutoff * seconds;
  return r / (r + 1);
};

/**
 * Steadies the way of a pointer: the 1-euro filter (Casiez, Roussel & Vogel 2012), which smooths slow movement more than fast,
 * then a string that pulls the brush only while it is taut. Gives a function from places in shares of the tile at times in
 * ms to where the brush is.
 */
export function steadier({ string, smooth }: Steadying): (place: Place, ms: number) => Place {
  let before: { place: Place; ms: number } | null = null;
  let speed = 0;
  let brush: Place | null = null;
  const slowest = CUTOFF[0] * (CUTOFF[1] / CUTOFF[0]) ** smooth;
  const filtered = (place: Place, ms: number): Place => {
    if (!before || smooth === 0) return place;
    const seconds = Math.max(1e-3, (ms - before.ms) / 1000);
    const [x, y] = before.place;
    const now = Math.hypot(place[0] - x, place[1] - y) / seconds;
    speed += shareOf(SPEED_CUTOFF, seconds) * (now - speed);
    const share = shareOf(slowest + BETA * speed, seconds);
    return [x + share * (place[0] - x), y + share * (place[1] - y)];
  };
  return (place, ms) => {
    const smoothed = filtered(place, ms);
    before = { place: smoothed, ms };
    if (!brush || string === 0) {
      brush = smoothed;
      return brush;
    }
    const [dx, dy] = [smoothed[0] - brush[0], smoothed[1] - brush[1]];
    const away = Math.hypot(dx, dy);
    if (away > string) {
      const pulled = (away - string) / away;
      brush = [brush[0] + pulled * dx, brush[1] + pulled * dy];
    }
    return brush;
  };
}
