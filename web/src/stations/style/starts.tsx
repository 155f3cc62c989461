import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { STYLE_STARTS } from '@zesty-tile/core';
import * as Comlink from 'comlink';
import { useEffect, useState } from 'react';
import { useDials } from '../../bench/dials/use-dials.ts';
import { OfferPicture } from '../../bench/offer-picture.tsx';
import { useBench } from '../../bench/state.ts';
import { engineNow } from '../../bench/use-engine.ts';
import type { Thumbnail } from '../../engine/protocol.ts';
import { GREY } from '../../theme.ts';

/** The tile painted in each way, by what comes before this station: not made again for a dial of its own. */
function usePictures(): (Thumbnail | undefined)[] {
  const [pictures, setPictures] = useState<(Thumbnail | undefined)[]>([]);
  const isAtRest = useBench((s) => s.work !== null);
  const { square, even, join, relief } = useBench((s) => s.recipe.stations);
  // biome-ignore lint/correctness/useExhaustiveDependencies: the settings that the pictures follow from
  useEffect(() => {
    const engine = engineNow();
    if (!engine || !isAtRest) return;
    const { recipe, source } = useBench.getState();
    let isWanted = true;
    const take = (place: number, picture: Thumbnail) => {
      if (isWanted) setPictures((all) => Object.assign([...all], { [place]: picture }));
    };
    const offers = STYLE_STARTS.map(({ dials }) => dials);
    engine.offerStyles({ recipe, source }, offers, Comlink.proxy(take as never)).catch(() => {
      // Without their pictures ways can be chosen by name.
    });
    return () => {
      isWanted = false;
    };
  }, [square, even, join, relief, isAtRest]);
  return pictures;
}

/** Ways of painting to begin with, each as it would look on this tile. */
export function Starts() {
  const now = useDials(
    'style',
    ...(Object.keys(STYLE_STARTS[0].dials) as (keyof (typeof STYLE_STARTS)[0]['dials'])[]),
  );
  const pictures = usePictures();
  const isNow = (dials: (typeof STYLE_STARTS)[number]['dials']) =>
    Object.entries(dials).every(([key, value]) => now[key as keyof typeof now] === value);
  return (
    <Box
      role="group"
      aria-label="Ways of painting"
      sx={{ display: 'grid', gridTemplateColumns: 'repeat(3, minmax(0, 1fr))', gap: 0.75, mb: 1 }}
    >
      {STYLE_STARTS.map(({ name, dials }, k) => (
        <Button
          key={name}
          aria-pressed={isNow(dials)}
          onClick={() => useBench.getState().setDials('style', dials, '')}
          sx={{
            display: 'grid',
            p: 0,
            minWidth: 0,
            fontSize: 12,
            lineHeight: 1.25,
            overflow: 'hidden',
            border: `1px solid ${isNow(dials) ? GREY.ink : GREY.line}`,
          }}
        >
          <OfferPicture thumbnail={pictures[k]} />
          <span style={{ padding: '3px 2px' }}>{name}</span>
        </Button>
      ))}
      <Button
        aria-pressed={now.amount === 0}
        onClick={() => useBench.getState().setDials('style', { amount: 0 }, '')}
        sx={{
          fontSize: 12,
          lineHeight: 1.25,
          minWidth: 0,
          border: `1px solid ${now.amount === 0 ? GREY.ink : GREY.line}`,
        }}
      >
        As it is
      </Button>
    </Box>
  );
}
