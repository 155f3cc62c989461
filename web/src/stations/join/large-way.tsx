import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import type { WAYS } from '@zesty-tile/core';
import { Laid } from '../../bench/laid.tsx';
import type { OfferedJoin } from '../../engine/protocol.ts';
import { WayFigures, wordsOfWay } from './way-card.tsx';

interface LargeWayProps {
  way: (typeof WAYS)[number];
  offer: OfferedJoin;
  isBest: boolean;
  /** To the one before or after it. */
  onStep(by: -1 | 1): void;
  onTake(): void;
}

/** One way of joining as large as the window has room for; the others are one step away, in the same place. */
export function LargeWay({ way, offer, isBest, onStep, onTake }: LargeWayProps) {
  const { width, height } = offer.picture;
  return (
    <Box sx={{ display: 'flex', gap: 2, alignItems: 'flex-start' }}>
      <Box
        sx={{
          width: `calc((100vh - 270px) * ${width / height})`,
          maxWidth: 'calc(100% - 230px)',
          flex: 'none',
        }}
      >
        <Laid picture={offer.picture} />
      </Box>
      <Box sx={{ display: 'grid', gap: 1, justifyItems: 'start' }}>
        <Typography sx={{ fontWeight: 700 }}>
          {wordsOfWay(way)}
          {isBest && ' · best'}
        </Typography>
        <WayFigures offer={offer} />
        <Box sx={{ display: 'flex', gap: 1 }}>
          <Button onClick={() => onStep(-1)}>Previous</Button>
          <Button onClick={() => onStep(1)}>Next</Button>
        </Box>
        <Button variant="contained" onClick={onTake}>
          Use this
        </Button>
      </Box>
    </Box>
  );
}
