import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import LinearProgress from '@mui/material/LinearProgress';
import Typography from '@mui/material/Typography';
import { aspectOf, WAYS } from '@zesty-tile/core';
import { useState } from 'react';
import { useDials } from '../../bench/dials/use-dials.ts';
import { useBench } from '../../bench/state.ts';
import { LargeWay } from './large-way.tsx';
import { closeProposals, stopTrying, tryWays, useProposals } from './use-proposals.ts';
import { WayCard } from './way-card.tsx';

/** All ways of joining side by side, with their figures; the best is marked and one press takes one. */
export function Proposals() {
  const { open, offers, busy, best, failure } = useProposals();
  const { method, blend } = useDials('join', 'method', 'blend');
  const { shape } = useDials('square', 'shape');
  const [large, setLarge] = useState<number | null>(null);
  const close = () => {
    setLarge(null);
    closeProposals();
  };
  const take = (way: (typeof WAYS)[number]) => {
    useBench.getState().setDials('join', way, 'join proposal');
    close();
  };
  // The best is first for the eye and for the keyboard, once it is known.
  const order = WAYS.map((_way, k) => k).sort((a, b) => Number(b === best?.best) - Number(a === best?.best));
  /** The one before or after the enlarged one, among those that are made, in the order they stand in. */
  const step = (by: -1 | 1) => {
    const made = order.filter((k) => offers[k]);
    const at = made.indexOf(large ?? 0);
    setLarge(made[(at + by + made.length) % made.length]);
  };
  const wordsOf = (k: number) =>
    !busy ? 'Not tried' : k === offers.length ? 'Being tried …' : 'To be tried';
  return (
    <Dialog
      open={open}
      onClose={() => (large === null ? close() : setLarge(null))}
      maxWidth="lg"
      fullWidth
      aria-labelledby="ways"
    >
      <DialogTitle id="ways">Joining methods</DialogTitle>
      <DialogContent>
        <Box sx={{ minHeight: 26, mb: 1 }} aria-live="polite">
          {failure
            ? `Not all could be tried: ${failure}`
            : (best?.reason ??
              (busy ? 'Computing and scoring each method …' : 'Stopped before all were tried.'))}
        </Box>
        <LinearProgress
          variant="determinate"
          value={(100 * offers.length) / WAYS.length}
          aria-label="Ways tried"
          sx={{ mb: 1, visibility: busy ? 'visible' : 'hidden' }}
        />
        {large !== null && offers[large] ? (
          <LargeWay
            way={WAYS[large]}
            offer={offers[large]}
            isBest={best?.best === large}
            onStep={step}
            onTake={() => take(WAYS[large])}
          />
        ) : (
          <Box
            sx={{
              display: 'grid',
              gridTemplateColumns: 'repeat(auto-fill, minmax(200px, 1fr))',
              gap: 1.5,
              p: 0.5,
            }}
          >
            {order
              .map((k) => ({ way: WAYS[k], k }))
              .map(({ way, k }) => (
                <WayCard
                  key={`${way.method} ${way.blend}`}
                  way={way}
                  offer={offers[k] ?? null}
                  words={wordsOf(k)}
                  aspect={aspectOf(shape)}
                  isBest={best?.best === k}
                  inHand={way.method === method && (method !== 'cut' || way.blend === blend)}
                  onTake={() => take(way)}
                  onEnlarge={() => setLarge(k)}
                />
              ))}
          </Box>
        )}
        <Typography color="text.secondary" sx={{ mt: 1.5 }}>
          mismatch: difference from the photo along the cut; below 0.1 is invisible · seam, blotch: 1 or less
          is hidden · detail: fine detail kept, 1 is all
        </Typography>
      </DialogContent>
      <DialogActions>
        {busy && <Button onClick={stopTrying}>Stop</Button>}
        {large !== null && <Button onClick={() => setLarge(null)}>All methods</Button>}
        <Button onClick={close}>Close</Button>
      </DialogActions>
    </Dialog>
  );
}

/** Opens the proposals from a verdict that is not fine. */
export const FindMethod = () => (
  <Button variant="outlined" size="small" onClick={() => void tryWays()}>
    Find a better method
  </Button>
);

/** Opens the proposals. */
export function TryWays() {
  return (
    <>
      <Button variant="outlined" onClick={() => void tryWays()}>
        Compare methods …
      </Button>
      <Proposals />
    </>
  );
}
