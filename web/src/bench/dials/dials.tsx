import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import {
  type Setting,
  type SettingsOf,
  type SettingValue,
  STATIONS,
  type StationName,
} from '@zesty-tile/core';
import { Fragment, useLayoutEffect, useRef } from 'react';
import { CratePanel, NewestCrate } from '../../stations/crate/crate-panel.tsx';
import { LeaveTools } from '../../stations/even/leave-tools.tsx';
import { FinishTools } from '../../stations/finish/finish-tools.tsx';
import { GaugeTools } from '../../stations/gauge/gauge-tools.tsx';
import { TryWays } from '../../stations/join/proposals.tsx';
import { RepairTools } from '../../stations/join/repair/repair-tools.tsx';
import { ProofTools } from '../../stations/proof/proof-tools.tsx';
import { BandDial, bandOfDial } from '../../stations/relief/band-dial.tsx';
import { ReliefTools } from '../../stations/relief/relief-tools.tsx';
import { SourceTools } from '../../stations/source/source-tools.tsx';
import { SquareTools } from '../../stations/square/square-tools.tsx';
import { PANEL } from '../../theme.ts';
import { useBench } from '../state.ts';
import { STATION_WORDS } from '../words.ts';
import { ChoiceDial } from './choice-dial.tsx';
import { ColourDial } from './colour-dial.tsx';
import { DataDial } from './data-dial.tsx';
import { Figures } from './figures.tsx';
import { FlagDial } from './flag-dial.tsx';
import { GiveAgain } from './give-again.tsx';
import { LineDial } from './line-dial.tsx';
import { NumberDial } from './number-dial.tsx';
import { Section } from './section.tsx';
import { VerdictBox } from './verdict-box.tsx';

function Dial({ station, name, setting }: { station: StationName; name: string; setting: Setting }) {
  const value = useBench((s) => (s.recipe.stations[station] as Record<string, SettingValue>)[name]);
  const setDial = useBench((s) => s.setDial);
  const change = (next: SettingValue) => setDial(station, name, next);
  switch (setting.type) {
    case 'number': {
      const band = station === 'relief' ? bandOfDial(name) : null;
      if (band) {
        return (
          <BandDial
            setting={setting}
            level={band.level}
            solo={band.isHeight}
            value={value as number}
            onChange={change}
          />
        );
      }
      return <NumberDial setting={setting} value={value as number} onChange={change} />;
    }
    case 'choice':
      if (name === 'line' && (station === 'gauge' || station === 'finish')) {
        return <LineDial station={station} setting={setting} />;
      }
      return <ChoiceDial setting={setting} value={value as string | number} onChange={change} />;
    case 'flag':
      return <FlagDial setting={setting} value={value as boolean} onChange={change} />;
    case 'data':
      if (typeof value === 'string' && value.startsWith('#')) {
        return <ColourDial setting={setting} value={value} onChange={change} />;
      }
      return <DataDial setting={setting} value={value} onChange={change} />;
  }
}

/** Groups whose own tools, under the dials, show what is set. */
const SHOWN_BY_TOOLS = new Set([
  'Repair',
  'Given maps',
  'Where from',
  'Own line',
  'Own profile',
  'Names',
  'Patches',
  'By eye',
  'Zones',
  'Readings',
  'Detail map',
  'Grey map',
  'Tone curve',
]);

/** Groups that are seldom needed start folded. */
const FOLDED = new Set([
  'Bands',
  'What counts',
  'Cavity',
  'Normal',
  'Vectors',
  'Side light',
  'Leave alone',
  'Read from',
  'Slanting light',
  'Shape',
  'Percentiles',
  'Recolour',
  'White balance',
  'Mixed height',
  'Fine detail of the normal',
  'Detail normal',
  'Occlusion',
  'Into the band',
  'F0',
  'Sizes of their own',
]);

function Group({
  station,
  title,
  dials,
}: {
  station: StationName;
  title: string;
  dials: [string, Setting][];
}) {
  const rows = dials.map(([name, setting]) => (
    <Dial key={name} station={station} name={name} setting={setting} />
  ));
  if (!title) return <div>{rows}</div>;
  return (
    <Section station={station} title={title} open={!FOLDED.has(title)}>
      {rows}
    </Section>
  );
}

/** The settings of the open station: what it is for, its verdict, its dials, its figures. */
export function Dials() {
  const station = useBench((s) => s.station);
  const failure = useBench((s) => s.failure);
  const panel = useRef<HTMLElement>(null);
  // biome-ignore lint/correctness/useExhaustiveDependencies: another station begins at its top
  useLayoutEffect(() => {
    if (panel.current) panel.current.scrollTop = 0;
  }, [station]);
  const groups = new Map<string, [string, Setting][]>();
  for (const [name, setting] of Object.entries(STATIONS[station].settings as SettingsOf)) {
    const title = setting.group ?? '';
    if (SHOWN_BY_TOOLS.has(title)) continue;
    groups.set(title, [...(groups.get(title) ?? []), [name, setting]]);
  }
  return (
    <Box component="section" aria-label="Dials" ref={panel} sx={PANEL}>
      <div>
        <Typography variant="h1">{STATION_WORDS[station]}</Typography>
        <Typography color="text.secondary">{STATIONS[station].line}</Typography>
      </div>
      {failure && (
        <Alert severity="error" variant="outlined">
          {failure.message} {failure.hint}
          {failure.code === 'source_gone' && <GiveAgain />}
        </Alert>
      )}
      <VerdictBox station={station} />
      {station === 'crate' && <NewestCrate />}
      {[...groups].map(([title, dials]) => (
        <Fragment key={`${station} ${title}`}>
          <Group station={station} title={title} dials={dials} />
          {station === 'relief' && title === '' && <ReliefTools />}
        </Fragment>
      ))}
      {station === 'source' && <SourceTools />}
      {station === 'square' && <SquareTools />}
      {station === 'even' && <LeaveTools />}
      {station === 'join' && <TryWays />}
      {station === 'join' && <RepairTools />}
      {station === 'gauge' && <GaugeTools />}
      {station === 'finish' && <FinishTools />}
      {station === 'proof' && <ProofTools />}
      {station === 'crate' && <CratePanel />}
      <Figures station={station} />
    </Box>
  );
}
