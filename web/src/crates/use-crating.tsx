import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import { useQueryClient } from '@tanstack/react-query';
import { adviceOf, STATION_NAMES, type StationName } from '@zesty-tile/core';
import { useSnackbar } from 'notistack';
import { create } from 'zustand';
import { wordsOf } from '../api/words-of.ts';
import { useBench } from '../bench/state.ts';
import { STATION_WORDS } from '../bench/words.ts';
import { startCrate } from '../stations/crate/start-crate.ts';
import { SIGN, STATE_COLOUR } from '../verdict.tsx';

interface Asking {
  /** What is asked about before a crate goes, or null. */
  asked: { refresh: boolean; wrong: StationName[] } | null;
}

const useAsking = create<Asking>(() => ({ asked: null }));

function useStart() {
  const queries = useQueryClient();
  const { enqueueSnackbar } = useSnackbar();
  return async (refresh: boolean) => {
    const { tileId } = useBench.getState();
    try {
      await startCrate(tileId, refresh);
      await queries.invalidateQueries({ queryKey: ['crates', tileId] });
      await queries.invalidateQueries({ queryKey: ['all crates'] });
    } catch (error) {
      enqueueSnackbar(wordsOf(error), { variant: 'error' });
    }
  };
}

/** Starts a crate of the current tile; where a station says “wrong” it is asked once before. */
export function useCrating(): (refresh?: boolean) => void {
  const start = useStart();
  return (refresh = false) => {
    const { found } = useBench.getState();
    const wrong = STATION_NAMES.filter((name) => found[name]?.verdict.state === 'wrong');
    if (wrong.length > 0) useAsking.setState({ asked: { refresh, wrong } });
    else void start(refresh);
  };
}

/** The question before a crate goes whose verdicts say “wrong”. */
export function CrateQuestion() {
  const asked = useAsking((s) => s.asked);
  const found = useBench((s) => s.found);
  const start = useStart();
  if (!asked) return null;
  const close = () => useAsking.setState({ asked: null });
  return (
    <Dialog open onClose={close} maxWidth="xs" fullWidth aria-labelledby="crate-question">
      <DialogTitle id="crate-question">Crate with problems?</DialogTitle>
      <DialogContent sx={{ display: 'grid', gap: 1 }}>
        {asked.wrong.map((name) => (
          <div key={name}>
            <strong style={{ color: STATE_COLOUR.wrong }}>
              {SIGN.wrong} {STATION_WORDS[name]}:
            </strong>{' '}
            {found[name] && `${found[name].verdict.sentence} ${adviceOf(found[name].verdict)}`}
          </div>
        ))}
      </DialogContent>
      <DialogActions>
        <Button onClick={close}>Not yet</Button>
        <Button
          variant="contained"
          onClick={() => {
            close();
            void start(asked.refresh);
          }}
        >
          Crate anyway
        </Button>
      </DialogActions>
    </Dialog>
  );
}
