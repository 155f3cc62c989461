/** Edges of a still, in pixels. */
export const STILL_SIZES = [512, 1024, 2048, 4096] as const;
/** Frames whose mean a still is: one is what is seen while something moves. */
export const STILL_FRAMES = [1, 48, 192] as const;
/** Paths of light from each pixel of a still that is traced; odd, as the path tracer shows every other mean. */
export const STILL_PATHS = [9, 65, 513] as const;
/** Edges of the pictures of one turn. */
export const TURN_SIZES = [512, 1024] as const;

/** How a still is lit: the mean of frames, or traced along paths of light. */
export interface StillLight {
  isTraced: boolean;
  samples: number;
}
