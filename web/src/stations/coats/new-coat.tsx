import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import * as Comlink from 'comlink';
import { useEffect, useState } from 'react';
import { OfferPicture } from '../../bench/offer-picture.tsx';
import { pressable } from '../../bench/pressed.ts';
import { useBench } from '../../bench/state.ts';
import { engineNow } from '../../bench/use-engine.ts';
import type { Thumbnail } from '../../engine/protocol.ts';
import { GREY } from '../../theme.ts';
import { OFFERS } from './offers.ts';
import { addCoat } from './use-coats.ts';

/** The tile with each offer on top of it, made anew whenever the recipe has come to rest. */
function useOfferPictures(isShown: boolean): (Thumbnail | undefined)[] {
  const [pictures, setPictures] = useState<(Thumbnail | undefined)[]>([]);
  const work = useBench((s) => s.work);
  // biome-ignore lint/correctness/useExhaustiveDependencies: a new pass of the engine is what they are made after
  useEffect(() => {
    const engine = engineNow();
    const { recipe, source } = useBench.getState();
    if (!isShown || !engine) return;
    let isWanted = true;
    const edgeMm = 1000 * recipe.stations.square.edgeMetres;
    const offers = OFFERS.map(([, make], k) => ({ ...make({ edgeMm }), id: `offer-${k}` }));
    const take = (place: number, picture: Thumbnail) => {
      if (!isWanted) return;
      setPictures((all) => Object.assign([...all], { [place]: picture }));
    };
    engine.offerCoats({ recipe, source }, offers, Comlink.proxy(take as never)).catch(() => {
      // Without their pictures offers can be chosen by name.
    });
    return () => {
      isWanted = false;
    };
  }, [work, isShown]);
  return pictures;
}

/** Coats to begin with, each as it would look on this tile: ordinary ones, which can be opened and changed. */
export function NewCoat() {
  const isEmpty = useBench((s) => s.recipe.stations.coats.stack.length === 0);
  const edgeMetres = useBench((s) => s.recipe.stations.square.edgeMetres);
  const [isAsked, setAsked] = useState(false);
  const isShown = isEmpty || isAsked;
  const pictures = useOfferPictures(isShown);
  return (
    <Box sx={{ display: 'grid', gap: 0.5 }}>
      {!isEmpty && (
        <Button
          aria-expanded={isAsked}
          sx={{ ...pressable(isAsked), justifySelf: 'start' }}
          onClick={() => setAsked(!isAsked)}
        >
          New coat …
        </Button>
      )}
      {isShown && (
        <Box
          role="group"
          aria-label="New coat"
          sx={{ display: 'grid', gridTemplateColumns: 'repeat(3, minmax(0, 1fr))', gap: 0.75 }}
        >
          {OFFERS.map(([words, make], k) => (
            <Button
              key={words}
              onClick={() => {
                setAsked(false);
                addCoat(make({ edgeMm: 1000 * edgeMetres }));
              }}
              sx={{
                display: 'grid',
                gridTemplateRows: 'auto 1fr',
                alignItems: 'center',
                p: 0,
                minWidth: 0,
                fontSize: 12,
                lineHeight: 1.25,
                whiteSpace: 'normal',
                overflow: 'hidden',
                border: `1px solid ${GREY.line}`,
              }}
            >
              <OfferPicture thumbnail={pictures[k]} />
              <span style={{ padding: '3px 2px' }}>{words}</span>
            </Button>
          ))}
        </Box>
      )}
    </Box>
  );
}
