import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useQuery } from '@tanstack/react-query';
import { contentKey, type Recipe } from '@zesty-tile/core';
import { useEffect, useMemo, useState } from 'react';
import { Section } from '../../bench/dials/section.tsx';
import { pressable } from '../../bench/pressed.ts';
import { useBench } from '../../bench/state.ts';
import { engineNow } from '../../bench/use-engine.ts';
import type { ShownView } from '../../engine/protocol.ts';
import { GREY } from '../../theme.ts';
import { LitChoice } from '../lit-choice.tsx';
import { litSlopes } from './lit-slopes.ts';

/** Edge of the tile that is made for it, and how much of it is shown. */
const MADE = 256;
const SHOWN = 150;
/** One turn of the light takes so long. */
const TURN_MS = 9000;

const WAYS = ['bright', 'dark'] as const;
type Way = (typeof WAYS)[number];

const otherWay = (recipe: Recipe, polarity: Way): Recipe => ({
  ...recipe,
  stations: { ...recipe.stations, relief: { ...recipe.stations.relief, polarity } },
});

/** The normals of both readings, small; made when they are asked for. */
function useNormals() {
  const recipe = useBench((s) => s.recipe);
  const source = useBench((s) => s.source);
  const { square, even, join, style, relief, source: given } = recipe.stations;
  const { polarity: _polarity, ...rest } = relief;
  return useQuery({
    queryKey: ['both ways', contentKey([source.sha256, square, even, join, style, rest, given.given])],
    queryFn: async () => {
      const engine = engineNow();
      const of = async (way: Way) =>
        (await engine?.other({ recipe: otherWay(recipe, way), source, view: 'normal' }, MADE)) ?? null;
      return { bright: await of('bright'), dark: await of('dark') };
    },
    placeholderData: (before) => before,
  });
}

function Reading({
  picture,
  green,
  degrees,
  way,
}: {
  picture: ShownView | null | undefined;
  green: 1 | -1;
  degrees: number;
  way: Way;
}) {
  const polarity = useBench((s) => s.recipe.stations.relief.polarity);
  const lit = useMemo(() => {
    if (!picture) return null;
    const image = new ImageData(SHOWN, SHOWN);
    litSlopes(image, picture.planes, picture.width, green, degrees);
    return image;
  }, [picture, green, degrees]);
  return (
    <LitChoice
      words={way === 'bright' ? 'Bright is high' : 'Dark is high'}
      edge={SHOWN}
      chosen={polarity === way}
      onChoose={() => useBench.getState().setDial('relief', 'polarity', way)}
      picture={lit}
      drawn={way}
    />
  );
}

/** Both readings of high and low side by side, under one light that turns: bumps stand out, or in. */
export const BothWays = () => (
  <Section station="relief" id="bumps-in-or-out" title="Raised or recessed">
    <Readings />
  </Section>
);

/** Both readings lit, to choose from. */
export function Readings() {
  const [turning, setTurning] = useState(() => !matchMedia('(prefers-reduced-motion: reduce)').matches);
  const [degrees, setDegrees] = useState(315);
  const green = useBench((s) => (s.recipe.stations.relief.normalY === 'up' ? 1 : -1));
  const { data } = useNormals();
  const isReady = Boolean(data?.bright && data.dark);
  useEffect(() => {
    if (!turning || !isReady) return;
    let frame = 0;
    let last = performance.now();
    const turn = (now: number) => {
      const passed = now - last;
      last = now;
      setDegrees((before) => (before + (360 * passed) / TURN_MS) % 360);
      frame = requestAnimationFrame(turn);
    };
    frame = requestAnimationFrame(turn);
    return () => cancelAnimationFrame(frame);
  }, [turning, isReady]);
  return (
    <Box sx={{ display: 'grid', gap: 0.75 }}>
      <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 1 }}>
        {WAYS.map((way) => (
          <Reading key={way} picture={data?.[way]} green={green} degrees={degrees} way={way} />
        ))}
      </Box>
      <Box sx={{ display: 'flex', alignItems: 'center', gap: 1 }}>
        <label htmlFor="both-ways-light" style={{ color: GREY.soft, whiteSpace: 'nowrap' }}>
          Light from
        </label>
        <input
          id="both-ways-light"
          type="range"
          min={0}
          max={359}
          value={Math.round(degrees) % 360}
          onChange={(event) => {
            setTurning(false);
            setDegrees(Number(event.target.value));
          }}
          style={{ flex: 1, accentColor: GREY.ink }}
        />
        <Button aria-pressed={turning} sx={pressable(turning)} onClick={() => setTurning(!turning)}>
          Turns
        </Button>
      </Box>
    </Box>
  );
}
