import { COMMON } from './own-size.ts';

/** One layer of strokes; lengths are shares of the shorter edge. */
export interface Layer {
  width: number;
  /** Length of a stroke, in its widths. */
  long: number;
  /** From one stroke to the next, in widths. */
  gap: number;
  /** Share of the tile that gets strokes: where it has most contrast. 1 is all of it. */
  share: number;
  /** σ by which contrast is measured. */
  contrast: number;
  /** Difference of colour (OKLab) at which a stroke ends. */
  stop: number;
  /** Times how unlike its own colour a pixel may be. */
  keep: number;
  opacity: number;
  /** How far its ridges stand out, of the broadest strokes'. */
  ridge: number;
}

/** By how many halvings what is drawn in small shapes makes brushes thinner. */
const FOR_DRAWING = 0.5;

/**
 * Broad strokes everywhere, finer ones where the tile has contrast (Hertzmann 1998). `own`: the tile's own octave; `drawn`: how
 * much of it is drawn in small shapes; `brush`: the dial.
 */
export function layersOf(brush: number, own: number, drawn: number): Layer[] {
  const bySize = 2 ** (0.45 * Math.max(-1, Math.min(1, own - COMMON)));
  const b = 2 ** (2 * (brush - 0.5)) * bySize * 2 ** (-FOR_DRAWING * drawn);
  return [
    {
      width: b / 13,
      long: 3,
      gap: 0.5,
      share: 1,
      contrast: b / 13,
      stop: 0.14,
      keep: 1.2,
      opacity: 0.95,
      ridge: 1,
    },
    {
      ...{ width: b / 26, long: 3.4, gap: 0.58, share: 0.65, contrast: b / 26 },
      ...{ stop: 0.11, keep: 1.1, opacity: 0.92, ridge: 0.7 },
    },
    {
      ...{ width: b / 64, long: 4.5, gap: 0.62, share: 0.22, contrast: b / 50 },
      ...{ stop: 0.09, keep: 0.9, opacity: 0.85, ridge: 0.4 },
    },
  ];
}
