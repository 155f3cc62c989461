import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import type { VerdictState } from '@zesty-tile/core';
import { useState } from 'react';
import { later } from '../later.tsx';
import { GREY } from '../theme.ts';
import { VerdictWords } from '../verdict.tsx';
import { DensityField } from './density-field.tsx';
import type { YardTile } from './queries.ts';
import { SideSheet } from './side-sheet.tsx';
import { worstOf } from './worst.ts';

const CrateSeveral = later(async () => (await import('./crate-several.tsx')).CrateSeveral);

const WORDS: Record<VerdictState, string> = { fine: 'fine', look: 'to look at', wrong: 'wrong' };

/** What is beside the tiles while none is chosen: how the project does. */
export function ProjectSheet({
  projectId,
  name,
  tiles,
  shown,
}: {
  projectId: string;
  name: string;
  tiles: YardTile[];
  /** Those that search and tags leave. */
  shown: YardTile[];
}) {
  const [isCrating, setCrating] = useState(false);
  const states = tiles.flatMap(({ look }) => (look ? [worstOf(look.verdicts).state] : []));
  const unmeasured = tiles.length - states.length;
  return (
    <SideSheet label={`About ${name}`}>
      <Typography variant="h1" component="h2" sx={{ overflowWrap: 'anywhere' }}>
        {name}
      </Typography>
      <div>
        {(Object.keys(WORDS) as VerdictState[]).map((state) => {
          const count = states.filter((one) => one === state).length;
          return (
            count > 0 && (
              <Box
                key={state}
                sx={{
                  display: 'flex',
                  justifyContent: 'space-between',
                  py: 0.4,
                  borderBottom: `1px solid ${GREY.line}`,
                }}
              >
                <VerdictWords state={state} words={WORDS[state]} />
                <span>{count}</span>
              </Box>
            )
          );
        })}
        {unmeasured > 0 && <span style={{ color: GREY.soft }}>{unmeasured} not measured yet</span>}
      </div>
      <DensityField projectId={projectId} />
      <Button disabled={shown.length === 0} onClick={() => setCrating(true)} sx={{ justifySelf: 'start' }}>
        Crate several …
      </Button>
      {isCrating && <CrateSeveral tiles={shown} onClose={() => setCrating(false)} />}
      <Typography color="text.secondary">
        Choose a tile to see it lit, with its maps and figures. Choose it once more to open it.
      </Typography>
    </SideSheet>
  );
}
