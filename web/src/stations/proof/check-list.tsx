import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { checksOf, type StationName, type Verdict } from '@zesty-tile/core';
import { useMemo } from 'react';
import { Link } from 'react-router';
import { pressable } from '../../bench/pressed.ts';
import { useBench } from '../../bench/state.ts';
import { STATION_WORDS } from '../../bench/words.ts';
import { FIGURES, GREY } from '../../theme.ts';
import { SIGN, STATE_COLOUR } from '../../verdict.tsx';
import { useProjects } from '../../yard/queries.ts';

/** Everything the tile is compared with: figure, limit, a sentence, and the way to the station that mends it. */
export function CheckList() {
  const found = useBench((s) => s.found);
  const stations = useBench((s) => s.recipe.stations);
  const tileId = useBench((s) => s.tileId);
  const projectId = useBench((s) => s.projectId);
  const { data } = useProjects();
  const density = data?.projects.find(({ id }) => id === projectId)?.density ?? null;
  const checks = useMemo(() => {
    const verdicts: Partial<Record<StationName, Verdict>> = {};
    for (const [name, one] of Object.entries(found)) verdicts[name as StationName] = one.verdict;
    return checksOf({ verdicts, stations, density });
  }, [found, stations, density]);
  return (
    <Box component="section" aria-label="All verdicts">
      <Box sx={{ display: 'flex', alignItems: 'center', pb: 0.25 }}>
        <Typography variant="h2" sx={{ flex: 1 }}>
          All verdicts
        </Typography>
        <Button sx={pressable(false)} component={Link} to={`/tiles/${tileId}/sheet`}>
          Proof sheet
        </Button>
      </Box>
      {checks.length === 0 && <span style={{ color: GREY.soft }}>Measuring …</span>}
      <Box component="ul" sx={{ m: 0, p: 0, listStyle: 'none' }}>
        {checks.map(({ id, label, state, figure, limit, sentence, station }) => (
          <Box
            component="li"
            key={id}
            data-check={id}
            data-state={state}
            sx={{ py: 0.5, borderBottom: `1px solid ${GREY.line}`, lineHeight: 1.35 }}
          >
            <Box sx={{ display: 'flex', alignItems: 'baseline', gap: 0.75 }}>
              <span style={{ color: STATE_COLOUR[state], fontWeight: 700 }}>{SIGN[state]}</span>
              <strong style={{ flex: 1 }}>{label}</strong>
              <span style={{ font: `11.5px ${FIGURES}`, textAlign: 'right' }}>
                {figure} {limit && <span style={{ color: GREY.soft }}>{limit}</span>}
              </span>
            </Box>
            <span style={{ color: GREY.soft }}>
              {sentence}{' '}
              <Link to={`/tiles/${tileId}/${station}`} style={{ color: GREY.ink }}>
                {STATION_WORDS[station]}
              </Link>
            </span>
          </Box>
        ))}
      </Box>
    </Box>
  );
}
