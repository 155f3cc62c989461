import Button from '@mui/material/Button';
import { useSight } from '../../bench/floor/sight.ts';
import { pressable } from '../../bench/pressed.ts';
import type { ViewName } from '../../engine/views.ts';

/** How the albedo is shown. */
export function GaugeControls({ view }: { view: ViewName }) {
  const { hatching, luminance } = useSight();
  if (view !== 'albedo') return null;
  return (
    <>
      <Button
        aria-pressed={hatching}
        sx={pressable(hatching)}
        onClick={() => useSight.setState({ hatching: !hatching })}
      >
        Hatching
      </Button>
      <Button
        aria-pressed={luminance}
        sx={pressable(luminance)}
        onClick={() => useSight.setState({ luminance: !luminance })}
      >
        Luminance
      </Button>
    </>
  );
}
