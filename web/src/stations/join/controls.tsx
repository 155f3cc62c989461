import Button from '@mui/material/Button';
import { useSight } from '../../bench/floor/sight.ts';
import { pressable } from '../../bench/pressed.ts';
import type { ViewName } from '../../engine/views.ts';

/** What of the joining is shown over the tile. */
export function JoinControls({ view }: { view: ViewName }) {
  const { cut, heat } = useSight();
  if (view !== 'joined') return null;
  return (
    <>
      <Button aria-pressed={cut} sx={pressable(cut)} onClick={() => useSight.setState({ cut: !cut })}>
        Cut
      </Button>
      <Button aria-pressed={heat} sx={pressable(heat)} onClick={() => useSight.setState({ heat: !heat })}>
        Seam heat
      </Button>
    </>
  );
}
