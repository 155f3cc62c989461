import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { BAND_VIEWS, bandMillimetres, type NumberSetting } from '@zesty-tile/core';
import { NumberDial } from '../../bench/dials/number-dial.tsx';
import { pressable } from '../../bench/pressed.ts';
import { useBench, viewInForce } from '../../bench/state.ts';

const figure = (mm: number) => (mm >= 100 ? mm.toFixed(0) : mm >= 10 ? mm.toFixed(0) : mm.toFixed(1));

interface BandDialProps {
  setting: NumberSetting;
  level: number;
  /** Bands of the height can be looked at alone. */
  solo: boolean;
  value: number;
  onChange(value: number): void;
}

/** One band's weight, named by the size of what it holds; and the band alone on the Floor. */
export function BandDial({ setting, level, solo, value, onChange }: BandDialProps) {
  const edgeMetres = useBench((s) => s.recipe.stations.square.edgeMetres);
  const view = useBench(viewInForce);
  const isAlone = view === BAND_VIEWS[level];
  const size = `${figure(bandMillimetres(level, edgeMetres))} mm`;
  return (
    <Box sx={{ display: 'grid', gridTemplateColumns: solo ? 'minmax(0, 1fr) 50px' : '1fr', gap: 0.5 }}>
      <NumberDial setting={setting} words={size} value={value} onChange={onChange} />
      {solo && (
        <Button
          aria-pressed={isAlone}
          aria-label={`Band of ${size} alone`}
          sx={{ ...pressable(isAlone), alignSelf: 'center' }}
          onClick={() => useBench.getState().set({ chosenView: isAlone ? null : BAND_VIEWS[level] })}
        >
          Solo
        </Button>
      )}
    </Box>
  );
}
