import Box from '@mui/material/Box';
import { DirectionDisc, wrappedDegrees } from '../../bench/dials/direction-disc.tsx';
import { useDials } from '../../bench/dials/use-dials.ts';
import type { StationDialProps } from '../station.ts';

/** Where painted light comes from, and by which reading of high and low it is painted. */
export function LightDial({ setting, value, onChange }: StationDialProps) {
  const { polarity } = useDials('relief', 'polarity');
  return (
    <Box sx={{ display: 'flex', alignItems: 'center', gap: 1.5, my: 0.5 }}>
      <DirectionDisc label={setting.label} degrees={value as number} onChange={onChange} />
      <span style={{ lineHeight: 1.35 }} title={setting.help}>
        Light from {wrappedDegrees(value as number)}°.
        <br />
        {polarity === 'dark' ? 'Dark' : 'Bright'} parts stand out, as Relief reads them.
      </span>
    </Box>
  );
}
