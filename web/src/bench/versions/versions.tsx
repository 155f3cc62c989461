import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useEffect } from 'react';
import { GREY, PANEL } from '../../theme.ts';
import { useBefore } from '../floor/before.ts';
import { useBench } from '../state.ts';
import { goBack, useSteps } from '../use-steps.ts';
import { useVersions } from './use-versions.ts';
import { VersionRow } from './version-row.tsx';

/** So many steps are listed; all of them can be undone. */
const STEPS_SHOWN = 12;

function Steps() {
  const steps = useSteps();
  return (
    <section aria-label="Steps">
      <Typography variant="h2" sx={{ mb: 0.5 }}>
        Steps since you opened it
      </Typography>
      {steps.length === 0 && <Typography color="text.secondary">None yet.</Typography>}
      {steps.slice(0, STEPS_SHOWN).map(({ words, back }) => (
        <Button
          key={back}
          variant="text"
          fullWidth
          aria-current={back === 0 ? 'step' : undefined}
          onClick={() => back !== 0 && goBack(back)}
          sx={{
            justifyContent: 'flex-start',
            textAlign: 'left',
            whiteSpace: 'normal',
            py: 0.25,
            fontWeight: back === 0 ? 700 : 400,
            color: back < 0 ? GREY.soft : GREY.ink,
          }}
        >
          {back < 0 ? `${words} (undone)` : words}
        </Button>
      ))}
    </section>
  );
}

/** Steps of this visit and every saved version: to go back to, to hold the present against. */
export function Versions({ onClose }: { onClose(): void }) {
  const tileId = useBench((s) => s.tileId);
  const base = useBench((s) => s.base);
  const { data, hasNextPage, fetchNextPage, error } = useVersions(tileId, base);
  useEffect(() => () => useBefore.setState({ compared: null, divider: null, picture: null }), []);
  const versions = data?.pages.flatMap((page) => page.revisions) ?? [];
  return (
    <Box component="section" aria-label="Versions" sx={PANEL}>
      <Box sx={{ display: 'flex', justifyContent: 'space-between', alignItems: 'start' }}>
        <div>
          <Typography variant="h1">Versions</Typography>
          <Typography color="text.secondary">Every save is kept. Nothing here is ever lost.</Typography>
        </div>
        <Button onClick={onClose} sx={{ flex: 'none' }}>
          Back to dials
        </Button>
      </Box>
      <Steps />
      <Typography variant="h2">Saved</Typography>
      {error && <Typography>{error.message}</Typography>}
      {versions.map((version, k) => (
        <VersionRow key={version.number} version={version} isNewest={k === 0} />
      ))}
      {hasNextPage && <Button onClick={() => fetchNextPage()}>Show older ones</Button>}
    </Box>
  );
}
