import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useQueryClient } from '@tanstack/react-query';
import { contentsOf, filesWithout, type ProfileFile, profileOf } from '@zesty-tile/core';
import { useSnackbar } from 'notistack';
import { wordsOf } from '../../api/words-of.ts';
import { useBench } from '../../bench/state.ts';
import { hasMap, SOME_MAPS } from '../../engine/has-map.ts';
import { FIGURES, GREY } from '../../theme.ts';
import { channelWords } from './channels.ts';
import { CrateCard } from './crate-card.tsx';
import { OwnProfile } from './own-profile.tsx';
import { startCrate } from './start-crate.ts';
import { useCrates } from './use-crate.ts';

const SWATCHES = ['#c0392b', '#2e8b57', '#2f6fd0', '#ffffff'];

/** What stands in red, green, blue and alpha of a file, each beside its colour. */
function Swatches({ file }: { file: ProfileFile }) {
  return (
    <Box sx={{ display: 'flex', flexWrap: 'wrap', columnGap: 1.25, color: GREY.soft }}>
      {contentsOf(file).map((words, k) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: a channel is known by its place
        <span key={k} style={{ font: `11px ${FIGURES}`, whiteSpace: 'nowrap' }}>
          <span
            aria-hidden="true"
            style={{
              display: 'inline-block',
              width: 9,
              height: 9,
              marginRight: 4,
              background: SWATCHES[k],
              border: `1px solid ${GREY.ink}`,
            }}
          />
          {words}
        </span>
      ))}
    </Box>
  );
}

function Contents() {
  const chosen = useBench((s) => s.recipe.stations.crate);
  const maps = useBench((s) => s.maps);
  const files = filesWithout(
    profileOf(chosen),
    SOME_MAPS.filter((map) => !hasMap(maps, map)),
  );
  return (
    <div>
      <Typography variant="h2" sx={{ mb: 0.5 }}>
        What goes out
      </Typography>
      {files.map((file) => (
        <Box
          key={file.ending}
          data-file={file.ending}
          sx={{ py: 0.4, borderBottom: `1px solid ${GREY.line}` }}
        >
          <Box sx={{ display: 'flex', justifyContent: 'space-between', gap: 1 }}>
            <span>{channelWords(file)}</span>
            <span style={{ font: `12px ${FIGURES}`, color: GREY.soft, whiteSpace: 'nowrap' }}>
              {file.format.toUpperCase()}, {file.bits} bit
            </span>
          </Box>
          {file.channels.length > 1 && <Swatches file={file} />}
        </Box>
      ))}
      <Box sx={{ mt: 1 }}>
        <OwnProfile />
      </Box>
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
