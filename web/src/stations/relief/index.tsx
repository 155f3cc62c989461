import type { NumberSetting } from '@zesty-tile/core';
import type { StationDialProps, StationView } from '../station.ts';
import { BandDial } from './band-dial.tsx';
import { ReliefTools } from './relief-tools.tsx';

const bandDial = (level: number, isHeight: boolean) =>
  function Band({ setting, value, onChange }: StationDialProps) {
    return (
      <BandDial
        setting={setting as NumberSetting}
        level={level}
        solo={isHeight}
        value={value as number}
        onChange={onChange}
      />
    );
  };

const bandDials = (prefix: string, count: number, isHeight: boolean) =>
  Object.fromEntries(
    Array.from({ length: count }, (_, level) => [`${prefix}${level + 1}`, bandDial(level, isHeight)]),
  );

export const relief: StationView = {
  name: 'relief',
  dials: { ...bandDials('band', 6, true), ...bandDials('fine', 3, false) },
  toolGroups: ['detail-map'],
  Main: ReliefTools,
};
