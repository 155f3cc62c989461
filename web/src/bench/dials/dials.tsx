import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import {
  type Group,
  type Setting,
  type SettingValue,
  STATIONS,
  type StationName,
  settingsOf,
} from '@zesty-tile/core';
import { Fragment, useEffect, useLayoutEffect, useRef } from 'react';
import { markRead } from '../../own-word.tsx';
import { STATION_VIEWS } from '../../stations/index.ts';
import { PANEL } from '../../theme.ts';
import { useBench } from '../state.ts';
import { STATION_WORDS } from '../words.ts';
import { Figures } from './figures.tsx';
import { GiveAgain } from './give-again.tsx';
import { Section } from './section.tsx';
import { SettingDial } from './setting-dial.tsx';
import { VerdictBox } from './verdict-box.tsx';

function Dial({ station, name, setting }: { station: StationName; name: string; setting: Setting }) {
  const value = useBench((s) => (s.recipe.stations[station] as Record<string, SettingValue>)[name]);
  const setDial = useBench((s) => s.setDial);
  const change = (next: SettingValue) => setDial(station, name, next);
  const Own = STATION_VIEWS[station].dials?.[name];
  if (Own) return <Own name={name} setting={setting} value={value} onChange={change} />;
  return <SettingDial setting={setting} value={value} onChange={change} />;
}

interface Dialed {
  group: Group | null;
  settings: [string, Setting][];
}

/** The settings that are shown as dials, group by group. */
function groupsOf(station: StationName): Dialed[] {
  const groups = new Map<string, Dialed>();
  const { toolGroups = [] } = STATION_VIEWS[station];
  for (const [name, setting] of Object.entries(settingsOf(station))) {
    const { group = null } = setting;
    if (group && toolGroups.includes(group.id)) continue;
    const known = groups.get(group?.id ?? '') ?? { group, settings: [] };
    known.settings.push([name, setting]);
    groups.set(group?.id ?? '', known);
  }
  return [...groups.values()];
}

function GroupOfDials({ station, group, settings }: Dialed & { station: StationName }) {
  const isVisible = useBench((s) => group?.visibleWhen?.(s.recipe.stations[station]) ?? true);
  if (!isVisible) return null;
  const rows = settings.map(([name, setting]) => (
    <Dial key={name} station={station} name={name} setting={setting} />
  ));
  if (!group) return <div>{rows}</div>;
  return (
    <Section station={station} id={group.id} title={group.title} open={!group.collapsed}>
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
  // Its line stands below its name.
  useEffect(() => markRead(STATION_WORDS[station]), [station]);
  const { Head, Main, Tools } = STATION_VIEWS[station];
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
      {Head && <Head />}
      {groupsOf(station).map(({ group, settings }) => (
        <Fragment key={`${station} ${group?.id}`}>
          <GroupOfDials station={station} group={group} settings={settings} />
          {!group && Main && <Main />}
        </Fragment>
      ))}
      {Tools && <Tools />}
      <Figures station={station} />
    </Box>
  );
}
