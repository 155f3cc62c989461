import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { hexOfLinear, MOST_READINGS, number, type Reading, srgbCode } from '@zesty-tile/core';
import { NumberDial } from '../../bench/dials/number-dial.tsx';
import { Section } from '../../bench/dials/section.tsx';
import { endPick, startPick } from '../../bench/floor/use-pick.ts';
import { pressable } from '../../bench/pressed.ts';
import { useBench } from '../../bench/state.ts';
import type { ReadValues } from '../../engine/protocol.ts';
import { CARD, FIGURES, GREY } from '../../theme.ts';
import { useReadings } from './reading-layer.tsx';
import { setReadings, useGauge } from './use-gauge.ts';

const PATCH = number({
  label: 'Patch',
  help: 'Diameter of the round patch that is read; 0 reads one point.',
  default: 0,
  min: 0,
  max: 500,
  step: 0.5,
  unit: 'mm',
});
const GREY_Y = number({
  label: 'Reference grey',
  help: 'Luminance Y of a reference grey shown next to the spot.',
  default: 0.18,
  min: 0,
  max: 1,
  step: 0.005,
  unit: 'Y',
});

const codes = (rgb: readonly number[]) => rgb.map(srgbCode).join(' ');

function bandWords({ y, band }: ReadValues): string {
  if (!band) return 'no line';
  return y < band[0] ? 'below' : y > band[1] ? 'above' : 'inside';
}

function ReadingRow({ k, values, chosen }: { k: number; values: ReadValues | undefined; chosen: boolean }) {
  return (
    <Box
      component="tr"
      aria-selected={chosen}
      onClick={() => useGauge.setState({ chosen: k })}
      sx={{ cursor: 'pointer', bgcolor: chosen ? GREY.walls : undefined }}
    >
      <th scope="row">
        <Button
          variant="text"
          sx={{ minWidth: 0, p: 0, fontWeight: 700 }}
          aria-label={`Choose reading ${k + 1}`}
        >
          {k + 1}
        </Button>
      </th>
      {values ? (
        <>
          <td>
            <Box
              component="span"
              aria-hidden="true"
              sx={{
                display: 'inline-block',
                width: 12,
                height: 12,
                border: `1px solid ${GREY.soft}`,
                verticalAlign: '-1px',
              }}
              style={{ background: hexOfLinear(values.rgb) }}
            />
          </td>
          <td>{values.y.toFixed(3)}</td>
          <td>{codes(values.rgb)}</td>
          <td>{values.f0.toFixed(3)}</td>
          <td>{values.gloss.toFixed(2)}</td>
          <td style={{ fontFamily: 'inherit' }}>{bandWords(values)}</td>
        </>
      ) : (
        <td colSpan={6}>being read …</td>
      )}
    </Box>
  );
}

/** Readings dropped on the tile: what is there, compared with the line. */
export function ReadingTools() {
  const readings = useBench((s) => s.recipe.stations.gauge.readings);
  const { values, chosen } = useGauge();
  useReadings();
  const at = Math.min(chosen, readings.length - 1);
  const now = readings[at];
  const put = (next: Partial<Reading>, gesture: string) =>
    setReadings(
      readings.map((one, k) => (k === at ? { ...one, ...next } : one)),
      `reading ${at} ${gesture}`,
    );
  const drop = () =>
    startPick({
      words: 'Click to place a reading',
      view: 'albedo',
      take: ({ at: [x, y] }) => {
        endPick();
        const mm = readings.at(-1)?.mm ?? 0;
        setReadings([
          ...readings,
          { x: Math.round(1e4 * x) / 1e4, y: Math.round(1e4 * y) / 1e4, mm, grey: null },
        ]);
        useGauge.setState({ chosen: readings.length });
      },
    });
  return (
    <Section station="gauge" id="readings" title="Readings" open={readings.length > 0}>
      <Box sx={{ display: 'grid', gap: 0.75 }}>
        <Button
          sx={{ ...pressable(false), justifySelf: 'start' }}
          disabled={readings.length >= MOST_READINGS}
          onClick={drop}
        >
          Drop a reading
        </Button>
        {readings.length > 0 && (
          <Box
            component="table"
            sx={{
              width: '100%',
              borderCollapse: 'collapse',
              '& td, & th': {
                font: `12px ${FIGURES}`,
                textAlign: 'right',
                py: 0.4,
                px: 0.4,
                whiteSpace: 'nowrap',
                borderBottom: `1px solid ${GREY.line}`,
              },
              '& thead th': { color: GREY.soft, fontFamily: 'inherit' },
            }}
          >
            <thead>
              <tr>
                <th />
                <th />
                <th>Y</th>
                <th>sRGB</th>
                <th>F0</th>
                <th>Gloss</th>
                <th>Band</th>
              </tr>
            </thead>
            <tbody>
              {readings.map((_reading, k) => (
                // biome-ignore lint/suspicious/noArrayIndexKey: readings have no identity but their place
                <ReadingRow key={k} k={k} values={values[k]} chosen={k === at} />
              ))}
            </tbody>
          </Box>
        )}
        {now && (
          <Box sx={CARD} role="group" aria-label={`Reading ${at + 1} selected`}>
            <NumberDial setting={PATCH} value={now.mm} onChange={(mm) => put({ mm }, 'patch')} />
            {now.grey === null ? null : (
              <NumberDial setting={GREY_Y} value={now.grey} onChange={(grey) => put({ grey }, 'grey')} />
            )}
            <Box sx={{ display: 'flex', gap: 0.75 }}>
              <Button
                aria-pressed={now.grey !== null}
                sx={pressable(now.grey !== null)}
                onClick={() => put({ grey: now.grey === null ? 0.18 : null }, '')}
              >
                Grey beside it
              </Button>
              <Button
                sx={{ ...pressable(false), ml: 'auto' }}
                onClick={() => setReadings(readings.filter((_one, k) => k !== at))}
              >
                Delete reading {at + 1}
              </Button>
            </Box>
          </Box>
        )}
      </Box>
    </Section>
  );
}
