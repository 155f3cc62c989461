import { isLit } from '../material/look.ts';
import { type SillState, useSill } from '../state.ts';

/** What is seen behind everything; null where a picture ends in nothing. */
export interface Behind {
  blur: number;
  strength: number;
}

/** What a still shows behind everything. */
export function behindNow(): Behind | null {
  const { around, shape, stillSky } = useSill.getState();
  if (shape === 'scene') return stillSky ? { blur: 0, strength: around.strength } : null;
  return around.background
    ? { blur: around.backBlur, strength: around.strength * around.backStrength }
    : null;
}

/** Why what the Sill shows now cannot be traced, in plain words; empty where it can. */
export function notTraced({ beside, show, shape, triplanar }: SillState): string {
  if (beside) return 'Two that are compared are drawn in frames: end the comparison to trace paths.';
  if (!isLit(show) || show === 'sheen')
    return 'Paths of light are traced for what is lit: choose Finished, clay or light.';
  if (shape === 'field') return 'The haze of the field is drawn in frames only.';
  if (triplanar) return 'A tile without the shape’s coordinates is drawn in frames only.';
  return '';
}
