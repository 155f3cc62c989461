import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import LinearProgress from '@mui/material/LinearProgress';
import Typography from '@mui/material/Typography';
import { Laid } from '../../bench/laid.tsx';
import type { OfferedCrop } from '../../engine/protocol.ts';
import { FIGURES, GREY } from '../../theme.ts';
import { closePieces, takePiece, useSquare } from './use-square.ts';

/** Changes smaller than these are not worth a word. */
const STRETCH = 0.0005;
const ANGLE = 0.05;

function wordsOf({ periods }: OfferedCrop): string {
  if (!periods) return 'Edges alike';
  const changes = [
    periods.stretch - 1 > STRETCH ? `stretched ${(100 * (periods.stretch - 1)).toFixed(1)} %` : '',
    periods.shear > ANGLE ? `sheared ${periods.shear.toFixed(1)}°` : '',
    Math.abs(periods.turn) > ANGLE ? `turned ${Math.abs(periods.turn).toFixed(1)}°` : '',
  ].filter(Boolean);
  const cells = periods.cells === 1 ? 'One whole period' : `${periods.cells} whole periods`;
  return changes.length > 0 ? `${cells}, ${changes.join(', ')}` : `${cells}, unchanged`;
}

function Piece({ offer }: { offer: OfferedCrop }) {
  const { seam, blotch, area } = offer;
  return (
    <Box
      component="article"
      aria-label={wordsOf(offer)}
      data-piece={offer.periods ? 'periods' : 'alike'}
      sx={{
        bgcolor: GREY.card,
        borderRadius: 1,
        overflow: 'hidden',
        outline: `1px solid ${GREY.line}`,
        display: 'flex',
        flexDirection: 'column',
      }}
    >
      <Laid picture={offer.picture} />
      <Box sx={{ p: 1, display: 'grid', gap: 0.5, flex: 1 }}>
        <Typography sx={{ fontWeight: 700, lineHeight: 1.25 }}>{wordsOf(offer)}</Typography>
        <Box sx={{ display: 'flex', flexWrap: 'wrap', columnGap: 1.25, font: `12px ${FIGURES}` }}>
          <span>seam {seam.toFixed(2)}</span>
          <span>blotch {blotch.toFixed(2)}</span>
          <span>{Math.round(100 * area)} % of the photo</span>
        </Box>
        <Button variant="outlined" size="small" onClick={() => takePiece(offer)} sx={{ mt: 'auto' }}>
          Use this
        </Button>
      </Box>
    </Box>
  );
}

/** Pieces of the photo that nearly tile by themselves, tiled 2 × 2. */
export function Pieces() {
  const pieces = useSquare((s) => s.pieces);
  return (
    <Dialog open={pieces !== null} onClose={closePieces} maxWidth="md" fullWidth aria-labelledby="pieces">
      <DialogTitle id="pieces">Crops that nearly tile</DialogTitle>
      <DialogContent>
        <Box sx={{ minHeight: 26, mb: 1 }} aria-live="polite">
          {pieces?.failure
            ? `The photo could not be searched: ${pieces.failure}`
            : pieces?.offers
              ? 'Tiled unjoined, with lighting removed. Join fixes the rest.'
              : 'Looking for periods and for edges that are alike …'}
        </Box>
        {pieces && !pieces.offers && <LinearProgress aria-label="Looking for pieces" />}
        <Box sx={{ display: 'grid', gridTemplateColumns: 'repeat(3, 1fr)', gap: 1.5, p: 0.5 }}>
          {pieces?.offers?.map((offer) => (
            <Piece key={JSON.stringify(offer.framing)} offer={offer} />
          ))}
        </Box>
        <Typography color="text.secondary" sx={{ mt: 1.5 }}>
          seam, blotch: how the edge shows without any joining, 1 or less is hidden
        </Typography>
      </DialogContent>
      <DialogActions>
        <Button onClick={closePieces}>Close</Button>
      </DialogActions>
    </Dialog>
  );
}
