import { type ChoiceSetting, type LineChoice, NO_LINE, type Setting } from '@zesty-tile/core';
import { LineField } from '../../charts/line-field.tsx';
import { useBench } from '../state.ts';
import { DialRow } from './dial-row.tsx';
import { useDials } from './use-dials.ts';

/** One row for the line of the chart that a station is compared with. */
export function LineDial({ station, setting }: { station: 'gauge' | 'finish'; setting: Setting }) {
  const { line, ownLine } = useDials<'gauge' | 'finish', 'line' | 'ownLine'>(station, 'line', 'ownLine');
  const projectId = useBench((s) => s.projectId);
  const change = ({ line, ownLine }: LineChoice) =>
    useBench.getState().setDials(station, { line, ownLine }, `${station} line`);
  return (
    <DialRow
      setting={setting}
      changed={line !== setting.default}
      onReset={() => change({ line: NO_LINE, ownLine: null })}
    >
      <LineField
        label={setting.label}
        value={{ line, ownLine }}
        none={(setting as ChoiceSetting).names[0]}
        projectId={projectId}
        onChange={change}
      />
    </DialRow>
  );
}
