import Box from '@mui/material/Box';
import type { ReliefDecision } from '@zesty-tile/core';
import { DirectionDisc, wrappedDegrees } from '../../bench/dials/direction-disc.tsx';
import { useDials } from '../../bench/dials/use-dials.ts';
import { useBench } from '../../bench/state.ts';
import { GREY } from '../../theme.ts';

/** Where slanting light comes from, dragged round the rim; what was found is marked. */
export function LightDisc() {
  const { heightFrom, secondFrom, lightFrom, lightDegrees } = useDials(
    'relief',
    'heightFrom',
    'secondFrom',
    'lightFrom',
    'lightDegrees',
  );
  const found = useBench(
    (s) => (s.recipe.decisions.relief?.data as ReliefDecision | undefined)?.light.degrees,
  );
  const reads = heightFrom === 'light' || heightFrom === 'both' || secondFrom === 'light';
  if (!reads) return null;
  const degrees = lightFrom === 'hand' ? lightDegrees : (found ?? lightDegrees);
  const put = (next: number) =>
    useBench.getState().setDials('relief', { lightFrom: 'hand', lightDegrees: next }, 'relief light');
  return (
    <Box sx={{ display: 'flex', alignItems: 'center', gap: 1.5 }}>
      <DirectionDisc
        label="Where slanting light comes from"
        degrees={degrees}
        marked={found}
        onChange={put}
      />
      <span style={{ lineHeight: 1.35 }}>
        Light from {wrappedDegrees(degrees)}°, {lightFrom === 'hand' ? 'set by hand' : 'as found'}.
        <br />
        <span style={{ color: GREY.soft }}>Drag it; the ring is where it was found.</span>
      </span>
    </Box>
  );
}
