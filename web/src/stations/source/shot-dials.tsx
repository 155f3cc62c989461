import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import {
  type Ball,
  directionOf,
  type LightDirection,
  MOST_SHOTS,
  type PictureRef,
  type ShotsDecision,
  withShots,
} from '@zesty-tile/core';
import { useRef, useState } from 'react';
import { storePicture } from '../../api/upload.ts';
import { wordsOf } from '../../api/words-of.ts';
import { FlagDial } from '../../bench/dials/flag-dial.tsx';
import { useBench } from '../../bench/state.ts';
import type { StationDialProps } from '../station.ts';
import { ShotCard, ShotCards } from './shot-card.tsx';

const THUMB = 240;
const urlOf = (sha256: string) => `/api/sources/${sha256}/picture?edge=${THUMB}`;

/** Adds shots to the tile, as one step that can be undone. */
function addShots(added: readonly PictureRef[]): void {
  const { recipe } = useBench.getState();
  const { shots } = recipe.stations.source;
  const all = [...shots, ...added];
  const next =
    shots.length === 0
      ? withShots(recipe, all, [])
      : {
          ...recipe,
          stations: { ...recipe.stations, source: { ...recipe.stations.source, shots: all } },
        };
  useBench.getState().replaceRecipe(next, added.length === 1 ? 'Shot added' : 'Shots added');
}

/** Adds shots of the same surface in other light. */
export function AddShots() {
  const input = useRef<HTMLInputElement>(null);
  const [problem, setProblem] = useState('');
  const [isBusy, setBusy] = useState(false);
  const take = async (files: File[]) => {
    const { source, recipe } = useBench.getState();
    const room = MOST_SHOTS - 1 - recipe.stations.source.shots.length;
    setProblem('');
    setBusy(true);
    try {
      const added: PictureRef[] = [];
      for (const file of files.slice(0, room)) {
        const picture = await storePicture(file);
        if (picture.width !== source.width || picture.height !== source.height) {
          setProblem(
            `${file.name} is ${picture.width} × ${picture.height}, the photo ${source.width} × ${source.height}: use shots of one camera, turned the same way.`,
          );
          return;
        }
        added.push(picture);
      }
      if (files.length > room)
        setProblem(`A tile takes ${MOST_SHOTS} shots at most; the others were left out.`);
      if (added.length > 0) addShots(added);
    } catch (error) {
      setProblem(wordsOf(error));
    } finally {
      setBusy(false);
    }
  };
  return (
    <Box sx={{ display: 'grid', gap: 0.5, justifyItems: 'start' }}>
      <Button variant="outlined" size="small" disabled={isBusy} onClick={() => input.current?.click()}>
        {isBusy ? 'Reading shots …' : 'Add shots in other light …'}
      </Button>
      <input
        ref={input}
        type="file"
        multiple
        hidden
        aria-label="More shots of the same surface"
        onChange={(event) => {
          void take([...(event.target.files ?? [])]);
          event.target.value = '';
        }}
      />
      {problem && (
        <Typography role="alert" color="error">
          {problem}
        </Typography>
      )}
    </Box>
  );
}

/** Where the light of each shot comes from, as chosen, or as it was found. */
function useLights(): (LightDirection | null)[] {
  const { shots, lightsFrom, lightDirections } = useBench((s) => s.recipe.stations.source);
  const decided = useBench((s) => s.recipe.decisions.source?.data as ShotsDecision | null | undefined);
  return Array.from({ length: shots.length + 1 }, (_, k) => {
    if (lightsFrom === 'typed') return lightDirections[k] ?? null;
    const light = decided?.shots[k]?.light;
    return light ? directionOf(light as [number, number, number]) : null;
  });
}

/** All shots of the tile, the photo first, with their lights. */
export function ShotsDial() {
  const sha256 = useBench((s) => s.source.sha256);
  const { shots, lightsFrom, lightDirections } = useBench((s) => s.recipe.stations.source);
  const lights = useLights();
  const setDials = useBench((s) => s.setDials);
  const aim = (k: number) => (light: LightDirection) =>
    setDials('source', { lightDirections: lights.map((one, n) => (n === k ? light : one)) }, `light ${k}`);
  const remove = (k: number) =>
    setDials(
      'source',
      {
        shots: shots.filter((_, n) => n !== k),
        lightDirections: lightDirections.filter((_, n) => n !== k + 1),
      },
      '',
    );
  const onLight = (k: number) => (lightsFrom === 'typed' ? aim(k) : undefined);
  return (
    <Box sx={{ display: 'grid', gap: 1 }}>
      <ShotCards>
        <ShotCard name="Shot 1" url={urlOf(sha256)} light={lights[0]} onLight={onLight(0)} />
        {shots.map((shot, k) => (
          <ShotCard
            key={shot.sha256}
            name={`Shot ${k + 2}`}
            file={shot.name}
            url={urlOf(shot.sha256)}
            light={lights[k + 1]}
            onLight={onLight(k + 1)}
            onRemove={() => remove(k)}
          />
        ))}
      </ShotCards>
      {lightsFrom === 'typed' && (
        <Typography color="text.secondary">
          Drag each dot to where the light stood: the top of a disc is the top of the photo, its middle
          straight above.
        </Typography>
      )}
      <AddShots />
    </Box>
  );
}

/** Where a ball lies that was not marked before, in shares of the longer edge. */
const FIRST: Ball = { x: 0.5, y: 0.35, radius: 0.08 };

/** Marks the ball that shows where light comes from. */
export function BallDial({ value, onChange }: StationDialProps) {
  const isRead = useBench((s) => s.recipe.stations.source.lightsFrom === 'ball');
  if (!isRead) return null;
  return (
    <Box sx={{ display: 'grid', gap: 0.5, justifyItems: 'start' }}>
      <Button variant="outlined" size="small" onClick={() => onChange(value ? null : FIRST)}>
        {value ? 'Remove the mark' : 'Mark the ball'}
      </Button>
      <Typography color="text.secondary">
        {value
          ? 'On the Floor: drag the middle of the circle onto the middle of the ball, and its rim onto the ball’s outline.'
          : 'A matte or shiny ball in the photo shows where light comes from.'}
      </Typography>
    </Box>
  );
}

/** The other reading of lights that were found. */
export function InvertedDial({ setting, value, onChange }: StationDialProps) {
  const isFound = useBench((s) => s.recipe.stations.source.lightsFrom === 'found');
  if (!isFound || setting.type !== 'flag') return null;
  return <FlagDial setting={setting} value={value as boolean} onChange={onChange} />;
}

/** Directions are set on the discs of the shots. */
export const NoDial = () => null;
