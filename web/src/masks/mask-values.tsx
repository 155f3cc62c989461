import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import {
  hexOfLinear,
  type LineChoice,
  lineF0,
  lineOf,
  type NumberSetting,
  newItem,
  number,
  roughnessBand,
  type SettingValue,
  STATIONS,
  stableJson,
  type ZoneFinish,
  type ZoneTone,
} from '@zesty-tile/core';
import { ItemDials } from '../bench/dials/item-dials.tsx';
import { NumberDial } from '../bench/dials/number-dial.tsx';
import { pressable } from '../bench/pressed.ts';
import { useBench } from '../bench/state.ts';
import { LineField } from '../charts/line-field.tsx';
import { ColourField } from '../palettes/colour-field.tsx';
import { FIGURES, GREY } from '../theme.ts';

const TONE = STATIONS.gauge.settings.zoneTones;
const FINISH = STATIONS.finish.settings.zoneFinish;
const RELIEF = STATIONS.relief.settings.zoneReadings;

/** Settings with means of their own: which zone it is, its line of the chart, and what is as the line until it is set. */
const BY_OTHER_MEANS = ['zone', 'line', 'ownLine', 'band', 'f0'];

/** Puts one zone's values among all; values that say nothing are not kept. */
function withValues<T extends { zone: string }>(all: readonly T[], next: T, plain: T): T[] {
  const { zone } = next;
  const isPlain = stableJson(next) === stableJson({ ...plain, zone });
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

/** How Relief reads a zone of its own. */
export function ReliefValues({ zone }: { zone: string }) {
  const all = useBench((s) => s.recipe.stations.relief.zoneReadings);
  const now = all.find((one) => one.zone === zone) ?? { ...newItem(RELIEF), zone };
  return (
    <ItemDials
      settings={RELIEF.item}
      values={now as unknown as Record<string, SettingValue>}
      without={BY_OTHER_MEANS}
      onChange={(key, value) =>
        useBench
          .getState()
          .setDials(
            'relief',
            { zoneReadings: withValues(all, { ...now, [key]: value }, newItem(RELIEF)) },
            `${zone} ${key}`,
          )
      }
    />
  );
}

/** What Gauge does to a zone of its own. */
export function ToneValues({ zone }: { zone: string }) {
  const all = useBench((s) => s.recipe.stations.gauge.zoneTones);
  const now = all.find((one) => one.zone === zone) ?? { ...newItem(TONE), zone };
  const put = (values: Partial<ZoneTone>, gesture: string) =>
    useBench
      .getState()
      .setDials(
        'gauge',
        { zoneTones: withValues(all, { ...now, ...values }, newItem(TONE)) },
        `${zone} ${gesture}`,
      );
  return (
    <>
      <LineRow value={now} onChange={({ line, ownLine }) => put({ line, ownLine }, 'line')} />
      <ItemDials
        settings={TONE.item}
        values={now as unknown as Record<string, SettingValue>}
        without={BY_OTHER_MEANS}
        onChange={(key, value) => put({ [key]: value }, key)}
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
  const now = all.find((one) => one.zone === zone) ?? { ...newItem(FINISH), zone };
  const own = lineOf(now);
  const put = (values: Partial<ZoneFinish>, gesture: string) =>
    useBench
      .getState()
      .setDials(
        'finish',
        { zoneFinish: withValues(all, { ...now, ...values }, newItem(FINISH)) },
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
      <ItemDials
        settings={FINISH.item}
        values={now as unknown as Record<string, SettingValue>}
        without={BY_OTHER_MEANS}
        onChange={(key, value) => put({ [key]: value }, key)}
      />
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
