import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useQuery } from '@tanstack/react-query';
import { contentKey, type FoundNet, firstJoints, type Recipe } from '@zesty-tile/core';
import { useEffect, useMemo, useState } from 'react';
import { pressable } from '../../bench/pressed.ts';
import { useBench } from '../../bench/state.ts';
import { engineNow } from '../../bench/use-engine.ts';
import { useSettledRecipe } from '../../bench/use-settled.ts';
import type { ShownView } from '../../engine/protocol.ts';
import { GREY } from '../../theme.ts';
import { LitChoice } from '../lit-choice.tsx';
import { litSlopes } from './lit-slopes.ts';

/** Edge of the tile that is made for it, and how much of it is shown. */
const MADE = 256;
const SHOWN = 150;
/** Readings are made when the dials have rested for so long, ms. */
const REST_MS = 500;
/** One turn of the light takes so long. */
const TURN_MS = 9000;

type ReliefSettings = Recipe['stations']['relief'];

const WORDS = {
  bright: 'Bright is high',
  dark: 'Dark is high',
  faces: 'Faces between joints',
  light: 'By slanting light',
} as const;
type Way = keyof typeof WORDS;

/** The settings of a way of reading height. */
function settingsOf(way: Way, now: ReliefSettings, net: FoundNet | null): Partial<ReliefSettings> {
  if (way === 'light') return { heightFrom: 'light', joints: 'none' };
  if (way !== 'faces') return { polarity: way, heightFrom: 'tone', joints: 'none' };
  // Joints that are carved already stay as they are.
  if (now.joints !== 'none') return { joints: now.joints };
  return { ...firstJoints(net?.lines ?? 'dark', now), heightFrom: 'tone' };
}

/** The way that height is read now; null where it is none of these. */
function wayOf({ joints, heightFrom, polarity }: ReliefSettings): Way | null {
  if (joints !== 'none') return 'faces';
  if (heightFrom === 'light') return 'light';
  return heightFrom === 'tone' ? polarity : null;
}

const readAs = (recipe: Recipe, values: Partial<ReliefSettings>): Recipe => ({
  ...recipe,
  stations: { ...recipe.stations, relief: { ...recipe.stations.relief, ...values } },
});

/** What comes before Relief, by which its readings are kept. */
const keyBefore = ({ stations: { square, even, join, style, source } }: Recipe, sha256: string) =>
  contentKey([sha256, square, even, join, style, source.given]);

/** The net of joints that closes faces best. */
function useNet(settled: Recipe | null): FoundNet | null {
  const source = useBench((s) => s.source);
  const key = useMemo(() => settled && keyBefore(settled, source.sha256), [settled, source]);
  const { data } = useQuery({
    queryKey: ['net', key],
    enabled: settled !== null,
    queryFn: async () => (await engineNow()?.findNet({ recipe: settled!, source })) ?? null,
    placeholderData: (before) => before,
  });
  return data ?? null;
}

/** The normals of one reading, small. */
function useNormals(way: Way, settled: Recipe | null, net: FoundNet | null): ShownView | null {
  const source = useBench((s) => s.source);
  const recipe = useMemo(
    () => settled && readAs(settled, settingsOf(way, settled.stations.relief, net)),
    [settled, way, net],
  );
  const key = useMemo(
    () => recipe && [keyBefore(recipe, source.sha256), contentKey(recipe.stations.relief)],
    [recipe, source],
  );
  const { data } = useQuery({
    queryKey: ['stands out', way, key],
    enabled: recipe !== null,
    queryFn: async () =>
      (await engineNow()?.other({ recipe: recipe!, source, view: 'normal' }, MADE)) ?? null,
    placeholderData: (before) => before,
  });
  return data ?? null;
}

interface ReadingProps {
  way: Way;
  settled: Recipe | null;
  net: FoundNet | null;
  green: 1 | -1;
  degrees: number;
}

function Reading({ way, settled, net, green, degrees }: ReadingProps) {
  const now = useBench((s) => s.recipe.stations.relief);
  const picture = useNormals(way, settled, net);
  const lit = useMemo(() => {
    if (!picture) return null;
    const image = new ImageData(SHOWN, SHOWN);
    litSlopes(image, picture.planes, picture.width, green, degrees);
    return image;
  }, [picture, green, degrees]);
  return (
    <LitChoice
      words={WORDS[way]}
      edge={SHOWN}
      chosen={wayOf(now) === way}
      onChoose={() => useBench.getState().setDials('relief', settingsOf(way, now, net), '')}
      picture={lit}
      drawn={way}
    />
  );
}

const netWords = ({ lines, score, isClear }: FoundNet): string =>
  isClear
    ? `Thin ${lines} lines close faces (${Math.round(100 * score)} %): they may be joints.`
    : `No lines close faces (${Math.round(100 * score)} %): no joints are offered.`;

/** What stands out: up to four readings of the surface side by side, under one light that turns; pressed it is taken. */
export function StandsOut() {
  const [turning, setTurning] = useState(() => !matchMedia('(prefers-reduced-motion: reduce)').matches);
  const [degrees, setDegrees] = useState(315);
  const green = useBench((s) => (s.recipe.stations.relief.normalY === 'up' ? 1 : -1));
  const hasJoints = useBench((s) => s.recipe.stations.relief.joints !== 'none');
  const settled = useSettledRecipe(REST_MS);
  const net = useNet(settled);
  const isOffered = hasJoints || net?.isClear === true;
  const ways: Way[] = isOffered ? ['bright', 'dark', 'faces', 'light'] : ['bright', 'dark', 'light'];
  useEffect(() => {
    if (!turning) return;
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
  }, [turning]);
  return (
    <Box component="section" aria-label="What stands out?" sx={{ display: 'grid', gap: 0.75 }}>
      <Typography sx={{ fontWeight: 700 }}>What stands out?</Typography>
      <Box sx={{ display: 'grid', gridTemplateColumns: `repeat(${isOffered ? 2 : 3}, 1fr)`, gap: 1 }}>
        {ways.map((way) => (
          <Reading key={way} way={way} settled={settled} net={net} green={green} degrees={degrees} />
        ))}
      </Box>
      <Typography color="text.secondary" sx={{ minHeight: 19 }}>
        {net ? netWords(net) : 'Looking for joints …'}
      </Typography>
      <Box sx={{ display: 'flex', alignItems: 'center', gap: 1 }}>
        <label htmlFor="stands-out-light" style={{ color: GREY.soft, whiteSpace: 'nowrap' }}>
          Light from
        </label>
        <input
          id="stands-out-light"
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
