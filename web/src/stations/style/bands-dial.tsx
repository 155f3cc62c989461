import Box from '@mui/material/Box';
import ButtonBase from '@mui/material/ButtonBase';
import Typography from '@mui/material/Typography';
import { bandMillimetres } from '@zesty-tile/core';
import { useEffect, useState } from 'react';
import { OfferPicture } from '../../bench/offer-picture.tsx';
import { useBench } from '../../bench/state.ts';
import { engineNow } from '../../bench/use-engine.ts';
import type { Thumbnail } from '../../engine/protocol.ts';
import { GREY } from '../../theme.ts';
import type { StationDialProps } from '../station.ts';

/** Pictures of the bands of the simplified height, after each pass of the engine. */
function useBandPictures(): readonly Thumbnail[] {
  const [pictures, setPictures] = useState<readonly Thumbnail[]>([]);
  const work = useBench((s) => s.work);
  // biome-ignore lint/correctness/useExhaustiveDependencies: a new pass of the engine is what they are made after
  useEffect(() => {
    let isWanted = true;
    engineNow()
      ?.styleBands()
      .then((found) => isWanted && setPictures(found ?? []))
      .catch(() => {
        // Without their pictures bands can be chosen by their sizes.
      });
    return () => {
      isWanted = false;
    };
  }, [work]);
  return pictures;
}

const words = (mm: number) => (mm >= 10 ? mm.toFixed(0) : mm.toFixed(1));

/** Bands of detail, each chosen or left out by its picture. */
export function BandsDial({ setting, value, onChange }: StationDialProps) {
  const chosen = value as boolean[];
  const pictures = useBandPictures();
  const edgeMetres = useBench((s) => s.recipe.stations.square.edgeMetres);
  return (
    <Box role="group" aria-label={setting.label} sx={{ mb: 1 }}>
      <Typography component="div" sx={{ fontSize: 13, mb: 0.5 }} title={setting.help}>
        {setting.label}, by size in mm
      </Typography>
      <Box sx={{ display: 'grid', gridTemplateColumns: 'repeat(6, minmax(0, 1fr))', gap: 0.5 }}>
        {chosen.map((isUsed, k) => {
          const size = `${words(bandMillimetres(k, edgeMetres))} mm`;
          return (
            <ButtonBase
              key={size}
              aria-pressed={isUsed}
              aria-label={`${setting.label}: ${size}`}
              onClick={() => onChange(chosen.map((one, n) => (n === k ? !one : one)))}
              sx={{
                display: 'block',
                border: `2px solid ${isUsed ? GREY.ink : GREY.line}`,
                borderRadius: '3px',
                overflow: 'hidden',
                fontSize: 10.5,
                '& canvas': { opacity: isUsed ? 1 : 0.3 },
              }}
            >
              <OfferPicture thumbnail={pictures[k]} />
              <span style={{ color: isUsed ? GREY.ink : GREY.soft }}>
                {words(bandMillimetres(k, edgeMetres))}
              </span>
            </ButtonBase>
          );
        })}
      </Box>
    </Box>
  );
}
