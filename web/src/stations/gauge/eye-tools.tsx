import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { STATIONS, srgbCode } from '@zesty-tile/core';
import { NumberDial } from '../../bench/dials/number-dial.tsx';
import { Section } from '../../bench/dials/section.tsx';
import { pressable } from '../../bench/pressed.ts';
import { useSill } from '../../bench/sill/state.ts';
import { useBench } from '../../bench/state.ts';
import { FIGURES } from '../../theme.ts';

const { eye: setting } = STATIONS.gauge.settings;

/** Finds a value by eye: the Sill under white light beside grey steps, a multiplier, and what it comes to. */
export function EyeTools() {
  const eye = useBench((s) => s.recipe.stations.gauge.eye);
  const median = useBench((s) => s.found.gauge?.verdict.figures.find(({ id }) => id === 'median')?.value);
  const isOn = useSill((s) => s.show === 'eye');
  const isHeld = useSill((s) => s.matteDivisor !== 1);
  const put = (value: number) => useBench.getState().setDial('gauge', 'eye', value);
  const hold = (next: boolean) => useSill.setState({ matteDivisor: next ? eye : 1 });
  return (
    <Section station="gauge" id="by-eye" title="By eye">
      <Box sx={{ display: 'flex', alignItems: 'center', gap: 1, mb: 0.5 }}>
        <Typography color="text.secondary" sx={{ flex: 1 }}>
          Adjust until the surface looks right.
        </Typography>
        <Button
          aria-pressed={isOn}
          sx={pressable(isOn)}
          onClick={() => useSill.setState({ show: isOn ? 'finished' : 'eye' })}
        >
          Next to grey steps
        </Button>
      </Box>
      <NumberDial setting={setting} value={eye} onChange={put} />
      <Box sx={{ display: 'flex', alignItems: 'center', gap: 0.75 }}>
        <span style={{ font: `12px ${FIGURES}`, flex: 1 }}>
          {median === undefined
            ? ''
            : `×${eye.toFixed(2)} comes to Y ${median.toFixed(3)}, sRGB ${srgbCode(median)}`}
        </span>
        <Button
          aria-pressed={isHeld}
          sx={pressable(isHeld)}
          disabled={!isOn || eye === 1}
          onPointerDown={() => hold(true)}
          onPointerUp={() => hold(false)}
          onPointerLeave={() => hold(false)}
          onKeyDown={(event) => event.key === ' ' && hold(true)}
          onKeyUp={() => hold(false)}
          onBlur={() => hold(false)}
        >
          Hold to compare
        </Button>
        <Button sx={pressable(false)} disabled={eye === 1} onClick={() => put(1)}>
          Reset
        </Button>
      </Box>
    </Section>
  );
}
