import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import { useEffect, useRef } from 'react';
import type { OfferedGraft } from '../../../engine/protocol.ts';
import { FIGURES, GREY } from '../../../theme.ts';
import { takeGraft, useRepair } from './use-repair.ts';

function OfferButton({ offer, number }: { offer: OfferedGraft; number: number }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const { rgba, width, height } = offer.picture;
  useEffect(() => {
    canvas.current?.getContext('2d')?.putImageData(new ImageData(rgba, width, height), 0, 0);
  }, [rgba, width, height]);
  const from = offer.graft.of === 'photo' ? 'from the photo' : 'from the tile';
  return (
    <Box
      component="button"
      onClick={() => takeGraft(offer)}
      aria-label={`Graft ${number}, ${from}, mismatch ${offer.unlike.toFixed(2)}`}
      sx={{
        p: 0,
        border: `1px solid ${GREY.line}`,
        borderRadius: 1,
        overflow: 'hidden',
        bgcolor: GREY.card,
        color: GREY.ink,
        cursor: 'pointer',
        font: `12px ${FIGURES}`,
        '&:hover, &:focus-visible': { outline: `2px solid ${GREY.ink}` },
      }}
    >
      <canvas
        ref={canvas}
        width={width}
        height={height}
        style={{ width: '100%', aspectRatio: '1', display: 'block' }}
      />
      <div style={{ padding: '2px 4px' }}>mismatch {offer.unlike.toFixed(2)}</div>
    </Box>
  );
}

/** Six patches to lie over the place that was pointed at. */
export function GraftOffers() {
  const { spot, offers, failure } = useRepair();
  const panel = useRef<HTMLDivElement>(null);
  useEffect(() => {
    // What is offered is seen without a scroll.
    if (spot && offers) panel.current?.scrollIntoView({ block: 'nearest' });
  }, [spot, offers]);
  if (!spot) return null;
  return (
    <Box ref={panel} aria-live="polite" sx={{ display: 'grid', gap: 0.75 }}>
      {failure && <Typography color="error">{failure}</Typography>}
      {!offers && !failure && <Typography color="text.secondary">Looking for patches that fit …</Typography>}
      {offers && (
        <>
          <Typography color="text.secondary">
            {offers.length > 0
              ? 'Click a patch to use it. Best outline match first.'
              : 'Nothing else in the tile or the photo is far enough from here: make the patch smaller.'}
          </Typography>
          <Box sx={{ display: 'grid', gridTemplateColumns: 'repeat(3, 1fr)', gap: 0.75 }}>
            {offers.map((offer, k) => (
              <OfferButton key={JSON.stringify(offer.graft.offset)} offer={offer} number={k + 1} />
            ))}
          </Box>
        </>
      )}
    </Box>
  );
}
