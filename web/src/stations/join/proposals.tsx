import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import LinearProgress from '@mui/material/LinearProgress';
import Typography from '@mui/material/Typography';
import { type ChoiceSetting, STATIONS } from '@zesty-tile/core';
import { useDials } from '../../bench/dials/use-dials.ts';
import { Laid } from '../../bench/laid.tsx';
import { useBench } from '../../bench/state.ts';
import type { OfferedJoin } from '../../engine/protocol.ts';
import { FIGURES, GREY, ZEST } from '../../theme.ts';
import { closeProposals, stopTrying, tryWays, useProposals } from './use-proposals.ts';

const { method: METHOD, blend: BLEND } = STATIONS.join.settings;

const nameOf = (setting: ChoiceSetting, value: string | number) =>
  setting.names[setting.options.indexOf(value)];

const wordsOf = ({ method, blend }: OfferedJoin): string =>
  method === 'cut'
    ? `${nameOf(METHOD, method)}, ${nameOf(BLEND, blend).toLowerCase()}`
    : nameOf(METHOD, method);

function Offer({ offer, isBest, inHand }: { offer: OfferedJoin; isBest: boolean; inHand: boolean }) {
  const { method, blend, score, seam, blotch, detail } = offer;
  const figures: [string, number][] = [
    ['unlike', score],
    ['seam', seam],
    ['blotch', blotch],
    ['detail', detail],
  ];
  const take = () => {
    useBench.getState().setDials('join', { method, blend }, 'join proposal');
    closeProposals();
  };
  return (
    <Box
      component="article"
      aria-label={wordsOf(offer)}
      data-offer={`${method} ${blend}`}
      sx={{
        bgcolor: GREY.card,
        borderRadius: 1,
        overflow: 'hidden',
        order: isBest ? -1 : 0,
        outline: isBest ? `3px solid ${ZEST}` : `1px solid ${GREY.line}`,
        display: 'flex',
        flexDirection: 'column',
      }}
    >
      <Laid picture={offer.picture} />
      <Box sx={{ p: 1, display: 'grid', gap: 0.5, flex: 1 }}>
        <Typography sx={{ fontWeight: 700, lineHeight: 1.25 }}>
          {wordsOf(offer)}
          {isBest && ' · best'}
        </Typography>
        <Box sx={{ display: 'flex', flexWrap: 'wrap', columnGap: 1.25, font: `12px ${FIGURES}` }}>
          {figures.map(([name, value]) => (
            <span key={name}>
              {name} {value.toFixed(2)}
            </span>
          ))}
        </Box>
        <Button
          variant={isBest ? 'contained' : 'outlined'}
          size="small"
          disabled={inHand}
          onClick={take}
          sx={{ mt: 'auto' }}
        >
          {inHand ? 'In hand' : 'Take it'}
        </Button>
      </Box>
    </Box>
  );
}

/** All ways of joining side by side, with their figures; the best is marked and one press takes one. */
export function Proposals() {
  const { open, offers, done, best, failure } = useProposals();
  const { method, blend } = useDials('join', 'method', 'blend');
  const busy = done !== null;
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
        {busy && (
          <LinearProgress variant="determinate" value={100 * done} aria-label="Ways tried" sx={{ mb: 1 }} />
        )}
        <Box
          sx={{
            display: 'grid',
            gridTemplateColumns: 'repeat(auto-fill, minmax(200px, 1fr))',
            gap: 1.5,
            p: 0.5,
          }}
        >
          {offers.map((offer, k) => (
            <Offer
              key={`${offer.method} ${offer.blend}`}
              offer={offer}
              isBest={best?.best === k}
              inHand={offer.method === method && (method !== 'cut' || offer.blend === blend)}
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
