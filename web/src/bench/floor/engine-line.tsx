import Box from '@mui/material/Box';
import type { EngineWork } from '../../engine/protocol.ts';
import { useSettings } from '../../settings/settings.ts';
import { FIGURES, GREY } from '../../theme.ts';
import { useBench } from '../state.ts';
import { STATION_WORDS } from '../words.ts';

const MB = 1e6;

/** What one pass came to, in one line. */
export function workWords(work: EngineWork): string {
  const { size, ms, hits, misses, bytes, limit, threads, planes, longest } = work;
  return [
    `${size} px in ${Math.round(ms)} ms`,
    `${hits} cached, ${misses} computed`,
    `${Math.round(bytes / MB)} of ${Math.round(limit / MB)} MB`,
    `${planes.reused} of ${planes.taken} buffers reused`,
    threads === 1 ? '1 thread' : `${threads} threads`,
    `longest step ${Math.round(longest.ms)} ms, ${STATION_WORDS[longest.station]}`,
  ].join(' · ');
}

/** What the engine did for the picture that is shown, where one wants to know. */
export function EngineLine() {
  const wanted = useSettings((s) => s.engineLine);
  const work = useBench((s) => s.work);
  if (!wanted) return null;
  return (
    <Box
      data-testid="engine-line"
      sx={{ font: `11px ${FIGURES}`, bgcolor: GREY.sheet, borderRadius: 1, px: 1, py: 0.5 }}
    >
      {work ? workWords(work) : 'Nothing computed yet'}
    </Box>
  );
}
