import { readFile } from 'node:fs/promises';
import { decodePicture } from '@zesty-tile/codecs';
import type { LightDirection, Pixels, Team } from '@zesty-tile/core';
import { demoPicture, makeMissingPictures, RIPPLE_SHOTS } from '@zesty-tile/demo';
import { decideShots } from '../core/src/stations/source/shots/decide.ts';
import { solveShots } from '../core/src/stations/source/shots/solve-shots.ts';
import { PLAIN_CONTEXT } from '../core/src/team/context.ts';

const EDGE = 1024;
const TIMES = 5;
const median = (values: number[]) => [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)];

/** The upper left of a picture. */
function cut({ data, width, channels }: Pixels): Pixels {
  const out = new Uint8Array(EDGE * EDGE * channels);
  for (let y = 0; y < EDGE; y++) {
    const from = y * width * channels;
    out.set((data as Uint8Array).subarray(from, from + EDGE * channels), y * EDGE * channels);
  }
  return { width: EDGE, height: EDGE, channels, data: out, originalWidth: EDGE, originalHeight: EDGE };
}

/** Times of four shots of 1024²: aligned, with their lights found, which is done once; and solved. */
export async function shotsTimings(
  team: Team,
): Promise<{ work: string; ms: number; wanted: number | null }[]> {
  const ids = RIPPLE_SHOTS.map(({ hour }) => `ripples-${hour}`);
  await makeMissingPictures(ids);
  const shots = await Promise.all(
    ids.map(async (id) => cut(await decodePicture(await readFile(demoPicture(id))))),
  );
  const lightDirections = RIPPLE_SHOTS.map(({ azimuth, height }): LightDirection => ({ azimuth, height }));
  const context = { ...PLAIN_CONTEXT, team };
  const chosen = { lightsFrom: 'typed' as const, lightDirections, ball: null, isInverted: false, shots: [] };
  const start = performance.now();
  const decided = await decideShots(shots, chosen, false, context);
  const settled = performance.now() - start;
  const lights = { vectors: decided.shots.map(({ light }) => light), ambient: decided.ambient, distance: 0 };
  const homographies = decided.shots.map(({ homography }) => homography);
  const times: number[] = [];
  for (let k = 0; k < TIMES; k++) {
    const began = performance.now();
    const { albedo, normal, residual } = await solveShots(shots, homographies, lights, false, context);
    times.push(performance.now() - began);
    team.give(...albedo.planes, ...normal.planes, residual);
  }
  return [
    { work: 'Four shots of 1024² aligned, once', ms: settled, wanted: null },
    { work: 'Four shots of 1024² solved', ms: median(times), wanted: 1500 },
  ];
}
