import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useQuery } from '@tanstack/react-query';
import { keyOf, PLAIN_REPEAT, type Recipe, type Repeat, type SourceRef } from '@zesty-tile/core';
import { Link } from 'react-router';
import { pressable } from '../../bench/pressed.ts';
import { useBench } from '../../bench/state.ts';
import { engineNow } from '../../bench/use-engine.ts';
import { FIGURES, GREY } from '../../theme.ts';
import { CheckList } from './check-list.tsx';
import { toneDown, useProof } from './use-proof.ts';

const percent = (share: number) => `${Math.round(100 * share)}%`;

/** The repeat figure of the tile without anything toned down, and as it is; both measured at the working size. */
function BeforeToned({ count }: { count: number }) {
  const recipe = useBench((s) => s.recipe);
  const source = useBench((s) => s.source);
  const repeats = useBench((s) => s.repeats);
  const { join } = recipe.stations;
  const plain = join.repairs.filter(({ kind }) => kind !== 'calm');
  const without = { ...recipe, stations: { ...recipe.stations, join: { ...join, repairs: plain } } };
  const before = useRepeatFigure(without, source, true);
  // The present one is asked for when the tile itself was measured: it is at hand then.
  const now = useRepeatFigure(recipe, source, repeats.length > 0);
  return (
    <span data-testid="before-toned" style={{ color: GREY.soft }}>
      {count === 1 ? '1 spot is' : `${count} spots are`} toned down; listed under Repairs in Join. Repeat
      figure{' '}
      <strong style={{ color: GREY.ink }}>
        {before === undefined || now === undefined
          ? 'being measured'
          : `${before.toFixed(1)} → ${now.toFixed(1)}`}
      </strong>
      .{before !== undefined && now !== undefined && <> {leftWords(before, now, repeats)}</>}
    </span>
  );
}

/** What toning down has come to, said plainly where something is still seen. */
function leftWords(before: number, now: number, repeats: readonly Repeat[]): string {
  const plain = repeats.filter(({ strength }) => strength >= PLAIN_REPEAT).length;
  const left =
    repeats.length === 0
      ? 'Nothing stands out any more.'
      : plain === 0
        ? 'What is left is faint.'
        : `${plain === 1 ? 'One spot is' : `${plain} spots are`} still plainly seen: repair ${plain === 1 ? 'it' : 'them'} at Join.`;
  return now < before ? left : `Toning down did not help here. ${left}`;
}

/** The repeat figure of a recipe; undefined until it is measured. */
const useRepeatFigure = (recipe: Recipe, source: SourceRef, isWanted: boolean): number | undefined =>
  useQuery({
    queryKey: ['repeat figure', source.sha256, keyOf([recipe.stations, recipe.masks, recipe.seed])],
    queryFn: () => engineNow()!.repeatFigure({ recipe, source }),
    enabled: isWanted,
    staleTime: Number.POSITIVE_INFINITY,
  }).data;

/** Spots that will be seen repeating, each to be toned down or repaired. */
function Spots() {
  const repeats = useBench((s) => s.repeats);
  const most = useBench((s) => s.recipe.stations.proof.most);
  const tileId = useBench((s) => s.tileId);
  const calmed = useBench((s) => s.recipe.stations.join.repairs.filter(({ kind }) => kind === 'calm').length);
  const shown = repeats.slice(0, most);
  return (
    <Box component="section" aria-label="What will be seen repeating" sx={{ display: 'grid', gap: 0.5 }}>
      <Box sx={{ display: 'flex', alignItems: 'center', gap: 1 }}>
        <Typography variant="h2" sx={{ flex: 1 }}>
          Seen repeating
        </Typography>
        {shown.length > 1 && (
          <Button sx={pressable(false)} onClick={() => toneDown(shown)}>
            Tone all down
          </Button>
        )}
      </Box>
      {shown.length === 0 && <span style={{ color: GREY.soft }}>Nothing stands out.</span>}
      <Box component="ol" aria-label="Spots" sx={{ m: 0, p: 0, listStyle: 'none' }}>
        {shown.map((spot, k) => (
          <Box
            component="li"
            key={`${spot.x} ${spot.y} ${spot.sigma}`}
            onPointerEnter={() => useProof.setState({ marked: k })}
            onPointerLeave={() => useProof.setState({ marked: null })}
            sx={{
              display: 'flex',
              alignItems: 'center',
              gap: 0.75,
              py: 0.25,
              borderBottom: `1px solid ${GREY.line}`,
            }}
          >
            <strong style={{ width: 18 }}>{k + 1}</strong>
            <span style={{ font: `11.5px ${FIGURES}`, flex: 1, whiteSpace: 'nowrap' }}>
              {spot.strength.toFixed(1)}× at {percent(spot.x)} {percent(spot.y)}
            </span>
            <Button
              sx={pressable(false)}
              aria-label={`Tone spot ${k + 1} down`}
              onClick={() => toneDown([spot])}
            >
              Tone down
            </Button>
            <Button
              sx={pressable(false)}
              component={Link}
              to={`/tiles/${tileId}/join`}
              aria-label={`Repair spot ${k + 1} at Join`}
              onClick={() => useProof.setState({ jump: spot })}
            >
              Repair
            </Button>
          </Box>
        ))}
      </Box>
      {calmed > 0 && <BeforeToned count={calmed} />}
    </Box>
  );
}

/** What Proof offers beside its dials. */
export function ProofTools() {
  return (
    <>
      <Spots />
      <CheckList />
    </>
  );
}
