import type { NumberSetting } from '@zesty-tile/core';
import { ZoneTools } from '../../masks/mask-tools.tsx';
import { putMaskBrushAway } from '../../masks/use-masks.ts';
import type { StationDialProps, StationView } from '../station.ts';
import { BandDial } from './band-dial.tsx';
import { ReliefOverlay } from './overlay.tsx';
import { ReliefTools } from './relief-tools.tsx';
import { StandsOut } from './stands-out.tsx';
import { takeJointBrush } from './use-joint-brush.ts';

/** Bands are numbered from 1 in the names of their settings. */
const levelOf = (name: string): number => Number(name.at(-1)) - 1;

const ReliefZones = () => <ZoneTools station="relief" />;

const Band = ({ name, setting, value, onChange, solo }: StationDialProps & { solo: boolean }) => (
  <BandDial
    setting={setting as NumberSetting}
    level={levelOf(name)}
    solo={solo}
    value={value as number}
    onChange={onChange}
  />
);

const HeightBand = (props: StationDialProps) => <Band {...props} solo />;
const NormalBand = (props: StationDialProps) => <Band {...props} solo={false} />;

const numbered = (prefix: string, count: number, dial: typeof HeightBand) =>
  Object.fromEntries(Array.from({ length: count }, (_, level) => [`${prefix}${level + 1}`, dial]));

export const relief: StationView = {
  name: 'relief',
  dials: { ...numbered('band', 6, HeightBand), ...numbered('fine', 3, NormalBand) },
  toolGroups: ['detail-map', 'joint-net', 'zones'],
  Head: StandsOut,
  Main: ReliefTools,
  Tools: ReliefZones,
  Overlay: ReliefOverlay,
  onLeave() {
    takeJointBrush(null);
    putMaskBrushAway();
  },
};
