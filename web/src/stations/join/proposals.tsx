import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import LinearProgress from '@mui/material/LinearProgress';
import Typography from '@mui/material/Typography';
import { aspectOf, WAYS } from '@zesty-tile/core';
import { useDials } from '../../bench/dials/use-dials.ts';
import { useBench } from '../../bench/state.ts';
import { closeProposals, stopTrying, tryWays, useProposals } from './use-proposals.ts';
import { WayCard } from './way-card.tsx';

/** All ways of joining side by side, with their figures; the best is marked and one press takes one. */
export function Proposals() {
  const { open, offers, busy, best, failure } = useProposals();
  const { method, blend } = useDials('join', 'method', 'blend');
  const { shape } = useDials('square', 'shape');
  const take = (way: (typeof WAYS)[number]) => {
    useBench.getState().setDials('join', way, 'join proposal');
    closeProposals();
  };
  const wordsOf = (k: number) =>
    !busy ? 'Not tried' : k === offers.length ? 'Being tried …' : 'To be tried';
  return (
    <Dialog open={open} onClose={closeProposals} maxWidth="lg" fullWidth aria-labelledby="ways">
      <DialogTitle id="ways">Ways to join this picture</DialogTitle>
      <DialogContent>
        <Box sx={{ minHeight: 26, mb: 1 }} aria-live="polite">
          {failure
            ? `Not all could be tried: ${failure}`
            : (best?.reason ??
              (busy ? 'Each is made and measured along its own cut …' : 'Stopped before all were tried.'))}
        </Box>
        <LinearProgress
          variant="determinate"
          value={(100 * offers.length) / WAYS.length}
          aria-label="Ways tried"
          sx={{ mb: 1, visibility: busy ? 'visible' : 'hidden' }}
        />
        <Box
          sx={{
            display: 'grid',
            gridTemplateColumns: 'repeat(auto-fill, minmax(200px, 1fr))',
            gap: 1.5,
            p: 0.5,
          }}
        >
          {WAYS.map((way, k) => (
            <WayCard
              key={`${way.method} ${way.blend}`}
              way={way}
              offer={offers[k] ?? null}
              words={wordsOf(k)}
              aspect={aspectOf(shape)}
              isBest={best?.best === k}
              inHand={way.method === method && (method !== 'cut' || way.blend === blend)}
              onTake={() => take(way)}
            />
          ))}
        </Box>
        <Typography color="text.secondary" sx={{ mt: 1.5 }}>
          unlike: how unlike the photo it looks along the cut, below 0.1 is hidden · seam, blotch: 1 or less
          is hidden · detail: fine detail kept, 1 is all
        </Typography>
      </DialogContent>
      <DialogActions>
        {busy && <Button onClick={stopTrying}>Stop</Button>}
        <Button onClick={closeProposals}>Close</Button>
      </DialogActions>
    </Dialog>
  );
}

/** Opens the proposals. */
export function TryWays() {
  return (
    <>
      <Button variant="outlined" onClick={() => void tryWays()}>
        Try all ways …
      </Button>
      <Proposals />
    </>
  );
}
