import Box from '@mui/material/Box';
import Skeleton from '@mui/material/Skeleton';
import Typography from '@mui/material/Typography';
import { useQueryClient } from '@tanstack/react-query';
import { type MouseEvent, useEffect, useState } from 'react';
import { FIGURES, GREY, ZEST } from '../theme.ts';
import { VerdictWords } from '../verdict.tsx';
import { useLook, type YardTile } from './queries.ts';
import { worstOf } from './worst.ts';

/** Height of the words under the picture. */
export const WORDS_HEIGHT = 58;

interface TileCardProps {
  tile: YardTile;
  chosen: boolean;
  /** It is one of those selected together. */
  selected: boolean;
  /** Selects it where a key is held; says whether it did. */
  onSelect(event: MouseEvent): boolean;
  onChoose(): void;
  onOpen(): void;
}

/** A tile laid 2 × 2, so that a seam is seen from the door; its size, edge and worst verdict. */
export function TileCard({ tile, chosen, selected, onSelect, onChoose, onOpen }: TileCardProps) {
  const queries = useQueryClient();
  const [gone, setGone] = useState(false);
  const { data, error } = useLook(tile.id, tile.revision, !tile.look || gone);
  const look = data ?? (gone ? null : tile.look);
  // What was measured just now is what filters and sorting go by.
  useEffect(() => {
    if (!data) return;
    queries.setQueryData<YardTile[]>(['tiles', tile.projectId], (tiles) =>
      tiles?.map((one) => (one.id === tile.id ? { ...one, look: data } : one)),
    );
  }, [data, queries, tile.id, tile.projectId]);
  const worst = look ? worstOf(look.verdicts) : null;
  return (
    <Box
      component="button"
      type="button"
      aria-pressed={chosen || selected}
      data-tile={tile.name}
      data-tile-id={tile.id}
      onClick={(event: MouseEvent) => {
        if (onSelect(event)) return;
        if (chosen || event.detail > 1) onOpen();
        else onChoose();
      }}
      sx={{
        display: 'block',
        width: '100%',
        height: '100%',
        p: 0,
        font: 'inherit',
        textAlign: 'left',
        cursor: 'pointer',
        bgcolor: GREY.card,
        border: `1px solid ${chosen || selected ? GREY.ink : GREY.line}`,
        boxShadow: selected ? `0 0 0 3px ${ZEST}` : chosen ? `0 0 0 1px ${GREY.ink}` : 'none',
        borderRadius: 1.5,
        overflow: 'hidden',
        color: GREY.ink,
        '&:hover': { borderColor: GREY.ink },
      }}
    >
      {look ? (
        <Box
          role="img"
          aria-label={`${tile.name}, tiled 2 × 2`}
          sx={{
            aspectRatio: '1',
            backgroundImage: `url(/api/thumbnails/${look.thumbnail})`,
            // Laid with square pixels: the longer edge goes over half the card.
            backgroundSize: tile.shape === '1:2' ? 'auto 50%' : '50% auto',
          }}
        >
          <img src={`/api/thumbnails/${look.thumbnail}`} alt="" hidden onError={() => setGone(true)} />
        </Box>
      ) : (
        <Box
          sx={{
            aspectRatio: '1',
            display: 'grid',
            placeItems: 'center',
            bgcolor: GREY.walls,
            p: error ? 2 : 0,
            textAlign: 'center',
            overflow: 'hidden',
          }}
        >
          {error ? error.message : <Skeleton variant="rectangular" sx={{ width: '100%', height: '100%' }} />}
        </Box>
      )}
      <Box sx={{ px: 1.5, py: 1, height: WORDS_HEIGHT }}>
        <Typography sx={{ fontWeight: 600, fontSize: 14 }} noWrap>
          {tile.name}
        </Typography>
        <Box sx={{ display: 'flex', justifyContent: 'space-between', gap: 1, fontSize: 12.5 }}>
          <span style={{ font: `12px ${FIGURES}`, color: GREY.soft, whiteSpace: 'nowrap' }}>
            {tile.size} · {tile.edgeMetres} m
          </span>
          <span style={{ overflow: 'hidden', textOverflow: 'ellipsis', whiteSpace: 'nowrap' }}>
            {worst ? <VerdictWords {...worst} /> : error ? '' : 'measuring …'}
          </span>
        </Box>
      </Box>
    </Box>
  );
}
