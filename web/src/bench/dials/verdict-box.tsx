import Box from '@mui/material/Box';
import type { StationName } from '@zesty-tile/core';
import { GREY } from '../../theme.ts';
import { SIGN, STATE_COLOUR } from '../../verdict.tsx';
import { useBench } from '../state.ts';

/** What the station measured about its own result, and what to do about it. */
export function VerdictBox({ station }: { station: StationName }) {
  const verdict = useBench((s) => s.found[station]?.verdict);
  // As high from the beginning as what is fine takes, so that nothing under it moves once it is measured.
  const box = {
    bgcolor: GREY.card,
    border: `1px solid ${GREY.line}`,
    borderLeft: `4px solid ${verdict ? STATE_COLOUR[verdict.state] : GREY.line}`,
    borderRadius: 1,
    px: 1.5,
    py: 1,
    lineHeight: 1.45,
    flexShrink: 0,
    minHeight: 'calc(3lh + 18px)',
  };
  if (!verdict) return <Box sx={{ ...box, color: GREY.soft }}>Measuring …</Box>;
  return (
    <Box role="status" sx={box}>
      <span style={{ color: STATE_COLOUR[verdict.state], fontWeight: 700 }}>{SIGN[verdict.state]} </span>
      {verdict.sentence}
      {verdict.advice && <Box sx={{ mt: 0.5, fontWeight: 600 }}>{verdict.advice}</Box>}
    </Box>
  );
}
