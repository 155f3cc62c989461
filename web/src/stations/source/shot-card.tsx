import Close from '@mui/icons-material/Close';
import Box from '@mui/material/Box';
import IconButton from '@mui/material/IconButton';
import type { LightDirection } from '@zesty-tile/core';
import { SkyDisc, spotOf } from '../../bench/dials/sky-disc.tsx';
import { FIGURES, GREY } from '../../theme.ts';

interface ShotCardProps {
  name: string;
  /** Name of its file. */
  file?: string;
  url: string;
  /** Where its light comes from; null where that is not known. */
  light: LightDirection | null;
  /** Left out where the direction is only shown. */
  onLight?(next: LightDirection): void;
  onRemove?(): void;
}

/** One of several shots: what it looks like, and where its light comes from. */
export function ShotCard({ name, file, url, light, onLight, onRemove }: ShotCardProps) {
  const place = light && { turn: light.azimuth, rise: light.height };
  const rounded = (degrees: number) => Math.round(10 * degrees) / 10;
  return (
    <Box component="li" aria-label={name} title={file} sx={{ display: 'grid', gap: 0.5, minWidth: 0 }}>
      <Box sx={{ position: 'relative', aspectRatio: '4 / 3', bgcolor: GREY.walls, borderRadius: 0.5 }}>
        <img
          src={url}
          alt={name}
          draggable={false}
          style={{ display: 'block', width: '100%', height: '100%', objectFit: 'cover', borderRadius: 4 }}
        />
        {onRemove && (
          <IconButton
            size="small"
            aria-label={`Remove ${name}`}
            onClick={onRemove}
            sx={{
              position: 'absolute',
              top: 2,
              right: 2,
              bgcolor: GREY.card,
              '&:hover': { bgcolor: GREY.card },
            }}
          >
            <Close sx={{ fontSize: 14 }} />
          </IconButton>
        )}
      </Box>
      <Box sx={{ display: 'flex', alignItems: 'center', gap: 0.75, minWidth: 0 }}>
        <SkyDisc
          label={`Light of ${name}`}
          light={place}
          onMove={onLight && (({ turn, rise }) => onLight({ azimuth: rounded(turn), height: rounded(rise) }))}
        >
          {place && <circle {...spotOf(place)} r={4} fill={GREY.ink} stroke="#fff" />}
        </SkyDisc>
        <Box sx={{ minWidth: 0 }}>
          <Box sx={{ overflow: 'hidden', textOverflow: 'ellipsis', whiteSpace: 'nowrap' }}>{name}</Box>
          <Box sx={{ font: `12px ${FIGURES}`, color: GREY.soft }}>
            {light ? `${Math.round(light.azimuth)}° ${Math.round(light.height)}°` : 'not set'}
          </Box>
        </Box>
      </Box>
    </Box>
  );
}

/** Shots beside each other. */
export function ShotCards({ children }: { children: React.ReactNode }) {
  return (
    <Box
      component="ul"
      aria-label="Shots"
      sx={{
        display: 'grid',
        gridTemplateColumns: 'repeat(auto-fill, minmax(120px, 1fr))',
        gap: 1,
        m: 0,
        p: 0,
        listStyle: 'none',
      }}
    >
      {children}
    </Box>
  );
}
