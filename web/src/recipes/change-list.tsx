import Box from '@mui/material/Box';
import { type Change, type StationName, valueWords } from '@zesty-tile/core';
import { STATION_WORDS } from '../bench/words.ts';
import { FIGURES, GREY } from '../theme.ts';

/** What differs between two recipes, station by station. */
export function ChangeList({ changes }: { changes: Change[] }) {
  const stations = [...new Set(changes.map((change) => change.station))];
  return (
    <Box sx={{ display: 'grid', gap: 1 }} data-testid="changes">
      {stations.map((station: StationName) => (
        <div key={station}>
          <strong>{STATION_WORDS[station]}</strong>
          {changes
            .filter((change) => change.station === station)
            .map(({ key, setting, from, to }) => (
              <Box
                key={key}
                sx={{
                  display: 'flex',
                  justifyContent: 'space-between',
                  gap: 2,
                  py: 0.25,
                  borderBottom: `1px solid ${GREY.line}`,
                }}
              >
                <span>
                  {setting.label}
                  {setting.group ? `, ${setting.group.toLowerCase()}` : ''}
                </span>
                <span style={{ font: `12px ${FIGURES}`, textAlign: 'right' }}>
                  <span style={{ color: GREY.soft }}>{valueWords(setting, from)} → </span>
                  {valueWords(setting, to)}
                </span>
              </Box>
            ))}
        </div>
      ))}
    </Box>
  );
}
