import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { number, type RampStop } from '@zesty-tile/core';
import { NumberDial } from '../../bench/dials/number-dial.tsx';
import { pressable } from '../../bench/pressed.ts';
import { ColourField } from '../../palettes/colour-field.tsx';
import { GREY } from '../../theme.ts';

const share = (label: string, help: string, value: number) =>
  number({ label, help, default: value, min: 0, max: 1, step: 0.01, unit: '' });
const AT = share('At', 'Where on the ramp the stop is.', 0.5);
const VALUE = share('Value', 'Of the stop.', 0.5);
const MOST = 32;

interface RampStopsProps {
  stops: readonly RampStop[];
  isColour: boolean;
  onChange(stops: RampStop[], gesture: string): void;
}

/** The stops of a ramp, in their order along it, under a band that shows it. */
export function RampStops({ stops, isColour, onChange }: RampStopsProps) {
  const put = (k: number, change: Partial<RampStop>, gesture: string) =>
    onChange(
      stops.map((stop, at) => (at === k ? { ...stop, ...change } : stop)),
      gesture && `stop ${k} ${gesture}`,
    );
  const sorted = [...stops].sort((a, b) => a.at - b.at);
  const grey = (value: number) =>
    `rgb(${Array(3)
      .fill(Math.round(255 * value))
      .join(' ')})`;
  const band = sorted.map((stop) => `${isColour ? stop.colour : grey(stop.value)} ${100 * stop.at}%`);
  const middle = () => {
    const gaps = sorted.slice(1).map((stop, k) => ({ from: sorted[k], to: stop }));
    const widest = gaps.reduce((a, b) => (b.to.at - b.from.at > a.to.at - a.from.at ? b : a), gaps[0]);
    return widest ? (widest.from.at + widest.to.at) / 2 : 0.5;
  };
  return (
    <Box sx={{ display: 'grid', gap: 0.5 }}>
      <Box
        role="img"
        aria-label={`Ramp of ${stops.length} stops`}
        sx={{
          height: 18,
          border: `1px solid ${GREY.line}`,
          background: `linear-gradient(to right in oklab, ${band.length > 1 ? band.join(', ') : `${band[0]}, ${band[0]}`})`,
        }}
      />
      {stops.map((stop, k) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: stops have no identity but their place
        <Box key={k} role="group" aria-label={`Stop ${k + 1}`} sx={{ display: 'grid', gap: 0.25 }}>
          <Box sx={{ display: 'flex', alignItems: 'center', gap: 0.75 }}>
            <span style={{ color: GREY.soft }}>Stop {k + 1}</span>
            {isColour && (
              <ColourField
                label={`Colour of stop ${k + 1}`}
                hex={stop.colour}
                offered={[]}
                onHex={(colour) => put(k, { colour }, '')}
              />
            )}
            {stops.length > 1 && (
              <Button
                sx={{ ...pressable(false), ml: 'auto', minWidth: 0 }}
                aria-label={`Remove stop ${k + 1}`}
                onClick={() =>
                  onChange(
                    stops.filter((_one, at) => at !== k),
                    '',
                  )
                }
              >
                Remove
              </Button>
            )}
          </Box>
          <NumberDial setting={AT} value={stop.at} onChange={(at) => put(k, { at }, 'at')} />
          {!isColour && (
            <NumberDial setting={VALUE} value={stop.value} onChange={(value) => put(k, { value }, 'value')} />
          )}
        </Box>
      ))}
      {stops.length < MOST && (
        <Button
          sx={{ ...pressable(false), justifySelf: 'start' }}
          onClick={() => onChange([...stops, { ...sorted[0], at: middle() }], '')}
        >
          Add a stop
        </Button>
      )}
    </Box>
  );
}
