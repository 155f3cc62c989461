import { create } from 'zustand';

interface Gathered {
  /** Whether frames are drawn as something moves, and gathering has not begun. */
  isMoving: boolean;
  frames: number;
  of: number;
  /** What one frame takes. */
  frameMs: number;
  /** What frames take while something moves, the middle one of the last, and by what their sides are divided. */
  movingMs: number;
  dividedBy: number;
  /** Whether what is seen hides the sky in them. */
  isOccluded: boolean;
}

/** Where gathering has come to: it waits, goes on, or nothing more is drawn. */
export const gatheringState = ({ frames, of, isMoving }: Gathered): 'waits' | 'goes on' | 'whole' =>
  isMoving ? 'waits' : frames < of ? 'goes on' : 'whole';

/** How far the light of the Sill's picture is gathered, and what a frame takes. */
export const gathered = create<Gathered>(() => ({
  isMoving: true,
  frames: 0,
  of: 0,
  frameMs: 0,
  movingMs: 0,
  dividedBy: 1,
  isOccluded: false,
}));
