import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useQueryClient } from '@tanstack/react-query';
import { PROFILES } from '@zesty-tile/core';
import { useSnackbar } from 'notistack';
import { wordsOf } from '../../api/words-of.ts';
import { useBench } from '../../bench/state.ts';
import { FIGURES, GREY } from '../../theme.ts';
import { channelWords } from './channels.ts';
import { CrateCard } from './crate-card.tsx';
import { startCrate } from './start-crate.ts';
import { useCrates } from './use-crate.ts';

function Contents() {
  const profile = useBench((s) => s.recipe.stations.crate.profile);
  const hasAlpha = useBench((s) => s.maps?.opacity != null);
  const files = PROFILES[profile].filter((file) => file.maps[0] !== 'opacity' || hasAlpha);
  return (
    <div>
      <Typography variant="h2" sx={{ mb: 0.5 }}>
        What goes out
      </Typography>
      {files.map((file) => (
        <Box
          key={file.ending}
          sx={{
            display: 'flex',
            justifyContent: 'space-between',
            py: 0.3,
            borderBottom: `1px solid ${GREY.line}`,
          }}
        >
          <span>{channelWords(file.maps)}</span>
          <span style={{ font: `12px ${FIGURES}`, color: GREY.soft, whiteSpace: 'nowrap' }}>
            PNG, {file.bits} bit
          </span>
        </Box>
      ))}
    </div>
  );
}

/** Starts a crate of the tile in hand, and says so where that fails. */
export function useCrating(): () => Promise<void> {
  const queries = useQueryClient();
  const { enqueueSnackbar } = useSnackbar();
  return async () => {
    const { tileId } = useBench.getState();
    try {
      await startCrate(tileId);
      await queries.invalidateQueries({ queryKey: ['crates', tileId] });
      await queries.invalidateQueries({ queryKey: ['all crates'] });
    } catch (error) {
      enqueueSnackbar(wordsOf(error), { variant: 'error' });
    }
  };
}

/** Crating: what goes out, the button, and the crates made so far. */
export function CratePanel() {
  const tileId = useBench((s) => s.tileId);
  const start = useCrating();
  const { data } = useCrates(tileId);
  return (
    <>
      <Contents />
      <Button variant="contained" color="secondary" onClick={start}>
        Crate it
      </Button>
      {data?.crates.map((crate, k) => (
        <CrateCard key={crate.id} id={crate.id} tileId={tileId} open={k === 0} />
      ))}
    </>
  );
}
