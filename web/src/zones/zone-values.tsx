import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import {
  hexOfLinear,
  type LineChoice,
  lineF0,
  lineOf,
  type NumberSetting,
  number,
  roughnessBand,
  STATIONS,
  type ZoneFinish,
  type ZoneTone,
} from '@zesty-tile/core';
import { Choices } from '../bench/choices.tsx';
import { NumberDial } from '../bench/dials/number-dial.tsx';
import { pressable } from '../bench/pressed.ts';
import { useBench } from '../bench/state.ts';
import { LineField } from '../charts/line-field.tsx';
import { ColourField } from '../palettes/colour-field.tsx';
import { FIGURES, GREY } from '../theme.ts';

const { exposure, contrast } = STATIONS.gauge.settings;

const PLAIN_TONE: Omit<ZoneTone, 'zone'> = { line: 'none', ownLine: null, exposure: 0, contrast: 1 };
const PLAIN_FINISH: Omit<ZoneFinish, 'zone'> = {
  line: 'none',
  ownLine: null,
  band: null,
  f0: null,
  metallic: 'line',
};

/** Puts one zone's values among all; values that say nothing are not kept. */
function withValues<T extends { zone: string }>(all: readonly T[], next: T, plain: Omit<T, 'zone'>): T[] {
  const { zone, ...values } = next;
  const isPlain = JSON.stringify(values) === JSON.stringify(plain);
  const at = all.findIndex((one) => one.zone === zone);
  if (isPlain) return all.filter((one) => one.zone !== zone);
  return at < 0 ? [...all, next] : all.map((one, k) => (k === at ? next : one));
}

const row = {
  display: 'grid',
  gridTemplateColumns: '92px minmax(0, 1fr)',
  alignItems: 'center',
  gap: 1,
  minHeight: 32,
};

function LineRow({ value, onChange }: { value: LineChoice; onChange(value: LineChoice): void }) {
  const projectId = useBench((s) => s.projectId);
  return (
    <Box sx={row}>
      <span>Reference</span>
      <LineField
        label="Reference of the zone"
        value={value}
        none="As the rest"
        projectId={projectId}
        onChange={onChange}
      />
    </Box>
  );
}

/** What Gauge does to a zone of its own. */
export function ToneValues({ zone }: { zone: string }) {
  const all = useBench((s) => s.recipe.stations.gauge.zoneTones);
  const now = all.find((one) => one.zone === zone) ?? { zone, ...PLAIN_TONE };
  const put = (values: Partial<ZoneTone>, gesture: string) =>
    useBench
      .getState()
      .setDials(
        'gauge',
        { zoneTones: withValues(all, { ...now, ...values }, PLAIN_TONE) },
        `${zone} ${gesture}`,
      );
  return (
    <>
      <LineRow value={now} onChange={({ line, ownLine }) => put({ line, ownLine }, 'line')} />
      <NumberDial
        setting={exposure}
        value={now.exposure}
        onChange={(value) => put({ exposure: value }, 'exposure')}
      />
      <NumberDial
        setting={contrast}
        value={now.contrast}
        onChange={(value) => put({ contrast: value }, 'contrast')}
      />
    </>
  );
}

const limit = (label: string, value: number): NumberSetting =>
  number({
    label,
    help: 'A limit of the zone’s roughness.',
    default: value,
    min: 0,
    max: 1,
    step: 0.01,
    unit: '',
  });

/** What Finish does to a zone of its own. */
export function FinishValues({ zone }: { zone: string }) {
  const chosen = useBench((s) => s.recipe.stations.finish);
  const all = chosen.zoneFinish;
  const now = all.find((one) => one.zone === zone) ?? { zone, ...PLAIN_FINISH };
  const own = lineOf(now);
  const put = (values: Partial<ZoneFinish>, gesture: string) =>
    useBench
      .getState()
      .setDials(
        'finish',
        { zoneFinish: withValues(all, { ...now, ...values }, PLAIN_FINISH) },
        `${zone} ${gesture}`,
      );
  const restBand = own?.roughness ?? roughnessBand(chosen);
  const band = now.band ?? restBand;
  const f0 = now.f0 ?? hexOfLinear(lineF0(own ?? lineOf(chosen)));
  const setLimit = (at: 0 | 1) => (value: number) => {
    const next: [number, number] = [band[0], band[1]];
    next[at] = value;
    // A limit that meets the other takes it along.
    next[1 - at] = at === 0 ? Math.max(value, next[1]) : Math.min(value, next[0]);
    put({ band: next }, `band ${at}`);
  };
  return (
    <>
      <LineRow value={now} onChange={({ line, ownLine }) => put({ line, ownLine }, 'line')} />
      <NumberDial setting={limit('Smoothest', restBand[0])} value={band[0]} onChange={setLimit(0)} />
      <NumberDial setting={limit('Roughest', restBand[1])} value={band[1]} onChange={setLimit(1)} />
      <Box sx={row}>
        <span>Metallic</span>
        <Choices
          label="Metallic of the zone"
          value={now.metallic}
          options={[
            { value: 'line', words: own ? 'As the line' : 'As the rest' },
            { value: 'no', words: 'No' },
            { value: 'yes', words: 'Yes' },
          ]}
          onChange={(metallic) => put({ metallic }, 'metallic')}
        />
      </Box>
      <Box sx={{ ...row, gridTemplateColumns: '92px auto 1fr auto' }}>
        <span>F0</span>
        <ColourField label="F0 of the zone" hex={f0} offered={[]} onHex={(hex) => put({ f0: hex }, 'f0')} />
        <span style={{ font: `12px ${FIGURES}`, color: GREY.soft }}>{f0}</span>
        {now.f0 && (
          <Button sx={pressable(false)} onClick={() => put({ f0: null }, 'f0')}>
            As the line
          </Button>
        )}
      </Box>
      {now.band && (
        <Button
          sx={{ ...pressable(false), justifySelf: 'start' }}
          onClick={() => put({ band: null }, 'band')}
        >
          Band as the line again
        </Button>
      )}
    </>
  );
}
