import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { type ChoiceSetting, STATIONS, type WAYS } from '@zesty-tile/core';
import { Laid } from '../../bench/laid.tsx';
import type { OfferedJoin } from '../../engine/protocol.ts';
import { FIGURES, GREY, ZEST } from '../../theme.ts';

type Way = (typeof WAYS)[number];

const { method: METHOD, blend: BLEND } = STATIONS.join.settings;

const nameOf = (setting: ChoiceSetting, value: string | number) =>
  setting.names[setting.options.indexOf(value)];

/** A way of joining in words. */
export const wordsOfWay = ({ method, blend }: Way): string =>
  method === 'cut'
    ? `${nameOf(METHOD, method)}, ${nameOf(BLEND, blend).toLowerCase()}`
    : nameOf(METHOD, method);

interface WayCardProps {
  way: Way;
  /** What came of it; null where it was not tried yet. */
  offer: OfferedJoin | null;
  /** What is said where no picture is yet. */
  words: string;
  /** Width over height of the tile. */
  aspect: number;
  isBest: boolean;
  inHand: boolean;
  onTake(): void;
  /** It is to be seen large. */
  onEnlarge(): void;
}

/** What was measured of a way of joining. */
export function WayFigures({ offer }: { offer: OfferedJoin | null }) {
  const figures: [string, number | undefined][] = [
    ['mismatch', offer?.score],
    ['seam', offer?.seam],
    ['blotch', offer?.blotch],
    ['detail', offer?.detail],
  ];
  return (
    <Box
      sx={{
        display: 'grid',
        gridTemplateColumns: '1fr 1fr',
        columnGap: 1.25,
        justifyContent: 'start',
        font: `12px ${FIGURES}`,
      }}
    >
      {figures.map(([name, value]) => (
        <span key={name}>
          {name} {value?.toFixed(2) ?? '–'}
        </span>
      ))}
    </Box>
  );
}

/** One way of joining with its picture and figures; it has its place before it is tried, so that nothing moves. */
export function WayCard({ way, offer, words, aspect, isBest, inHand, onTake, onEnlarge }: WayCardProps) {
  return (
    <Box
      component="article"
      aria-label={wordsOfWay(way)}
      data-offer={offer ? `${way.method} ${way.blend}` : undefined}
      sx={{
        bgcolor: GREY.card,
        borderRadius: 1,
        overflow: 'hidden',
        outline: isBest ? `3px solid ${ZEST}` : `1px solid ${GREY.line}`,
        display: 'flex',
        flexDirection: 'column',
      }}
    >
      {offer ? (
        <Box
          component="button"
          type="button"
          aria-label={`Enlarge ${wordsOfWay(way)}`}
          title="Enlarge"
          onClick={onEnlarge}
          sx={{ p: 0, border: 0, display: 'block', width: '100%', cursor: 'zoom-in', bgcolor: 'transparent' }}
        >
          <Laid picture={offer.picture} />
        </Box>
      ) : (
        <Box sx={{ aspectRatio: aspect, display: 'grid', placeItems: 'center', color: GREY.soft }}>
          {words}
        </Box>
      )}
      <Box sx={{ p: 1, display: 'grid', gap: 0.5, flex: 1 }}>
        <Typography sx={{ fontWeight: 700, lineHeight: 1.25 }}>
          {wordsOfWay(way)}
          {isBest && ' · best'}
        </Typography>
        <WayFigures offer={offer} />
        <Button
          variant={isBest ? 'contained' : 'outlined'}
          size="small"
          disabled={inHand || !offer}
          onClick={onTake}
          sx={{ mt: 'auto' }}
        >
          {inHand ? 'In use' : 'Use this'}
        </Button>
      </Box>
    </Box>
  );
}
