import { type Beside, SILL_MAPS, type SillMap } from '../state.ts';

const NONE: readonly SillMap[] = [];
const ALL_BUT_ALBEDO = SILL_MAPS.filter((map) => map !== 'albedo' && map !== 'opacity');

/** Whether what is beside is the open tile itself, with fewer maps. */
export const isOfThis = ({ kind }: Beside): boolean => kind === 'albedo' || kind === 'without';

/** Maps that are out of play in what is beside. */
export function missingOf(beside: Beside | null): readonly SillMap[] {
  if (beside?.kind === 'albedo') return ALL_BUT_ALBEDO;
  return beside?.kind === 'without' ? [beside.map] : NONE;
}
