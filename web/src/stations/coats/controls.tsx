import Button from '@mui/material/Button';
import type { CoatPart } from '@zesty-tile/core';
import { pressable } from '../../bench/pressed.ts';
import { useBench } from '../../bench/state.ts';
import { useCoats } from './use-coats.ts';

/** Whether a part is set by places on the Floor. */
const hasPlaces = (part: CoatPart): boolean =>
  part.by === 'shape' ||
  (part.by === 'gradient' && part.kind !== 'height') ||
  (part.by === 'picture' && part.placing === 'once');

/** Whether handles on the Floor go to lines that divide the tile; offered where there are such handles. */
export function CoatControls() {
  const open = useCoats((s) => s.open);
  const snaps = useCoats((s) => s.snaps);
  const has = useBench(({ recipe }) => {
    const { stack, groups } = recipe.stations.coats;
    return [...stack, ...groups].some(({ id, parts }) => id === open && parts.some(hasPlaces));
  });
  if (!has) return null;
  return (
    <Button aria-pressed={snaps} sx={pressable(snaps)} onClick={() => useCoats.setState({ snaps: !snaps })}>
      Snap
    </Button>
  );
}
