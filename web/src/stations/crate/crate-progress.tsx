import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import LinearProgress from '@mui/material/LinearProgress';
import type { StationName } from '@zesty-tile/core';
import { STATION_WORDS } from '../../bench/words.ts';
import { FIGURES, GREY } from '../../theme.ts';
import type { FollowedCrate } from './use-crate.ts';

interface CrateProgressProps {
  crate: FollowedCrate;
  onStop(): void;
  onMove(to: 'first' | 'up' | 'down'): void;
}

/** How far a crate is, in all and with the file at hand; or its place in the queue. */
export function CrateProgress({ crate, onStop, onMove }: CrateProgressProps) {
  const { file } = crate;
  if (crate.state === 'waiting') {
    return (
      <Box sx={{ display: 'flex', gap: 0.75, alignItems: 'center' }}>
        <span style={{ flex: 1 }}>Queued</span>
        <Button onClick={() => onMove('first')}>First</Button>
        <Button onClick={() => onMove('up')}>Earlier</Button>
        <Button onClick={() => onMove('down')}>Later</Button>
        <Button onClick={onStop}>Stop</Button>
      </Box>
    );
  }
  const at =
    crate.station === 'writing'
      ? 'writing files'
      : (STATION_WORDS[crate.station as StationName] ?? 'beginning');
  return (
    <>
      <LinearProgress
        variant="determinate"
        value={100 * crate.progress}
        aria-label={`Crate ${crate.number}`}
      />
      <Box sx={{ display: 'flex', justifyContent: 'space-between', alignItems: 'center' }}>
        <span>
          {Math.round(100 * crate.progress)} %, {at}
        </span>
        <Button onClick={onStop}>Stop</Button>
      </Box>
      {file && (
        <Box sx={{ display: 'grid', gap: 0.5 }}>
          <span style={{ font: `12px ${FIGURES}`, color: GREY.soft, overflowWrap: 'anywhere' }}>
            {file.index + 1} of {file.count}: {file.name}
          </span>
          <LinearProgress variant="determinate" value={100 * file.share} aria-label={file.name} />
        </Box>
      )}
    </>
  );
}
