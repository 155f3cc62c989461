import Box from '@mui/material/Box';
import Skeleton from '@mui/material/Skeleton';
import Typography from '@mui/material/Typography';
import { Link } from 'react-router';
import { FIGURES, GREY } from '../theme.ts';
import { VerdictWords } from '../verdict.tsx';
import { useLook } from './queries.ts';
import { worstOf } from './worst.ts';

interface TileCardProps {
  tile: { id: string; name: string; revision: number; size: number; edgeMetres: number };
}

/** A tile laid 2 × 2, so that a seam is seen from the door; its size, edge and worst verdict. */
export function TileCard({ tile }: TileCardProps) {
  const { data, error } = useLook(tile.id, tile.revision);
  const worst = data ? worstOf(data.verdicts) : null;
  return (
    <Box
      component={Link}
      to={`/tiles/${tile.id}/source`}
      data-tile={tile.name}
      sx={{
        display: 'block',
        bgcolor: GREY.card,
        border: `1px solid ${GREY.line}`,
        borderRadius: 1.5,
        overflow: 'hidden',
        color: GREY.ink,
        textDecoration: 'none',
        '&:hover, &:focus-visible': { borderColor: GREY.ink },
      }}
    >
      {data ? (
        <Box
          role="img"
          aria-label={`${tile.name}, laid 2 × 2`}
          sx={{
            aspectRatio: '1',
            backgroundImage: `url(/api/thumbnails/${data.thumbnail})`,
            backgroundSize: '50% 50%',
          }}
        />
      ) : (
        <Box
          sx={{
            aspectRatio: '1',
            display: 'grid',
            placeItems: 'center',
            bgcolor: GREY.walls,
            p: 2,
            textAlign: 'center',
          }}
        >
          {error ? error.message : <Skeleton variant="rectangular" sx={{ width: '100%', height: '100%' }} />}
        </Box>
      )}
      <Box sx={{ px: 1.5, py: 1 }}>
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
