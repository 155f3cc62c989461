import * as v from 'valibot';
import { refSchema } from '../../../tile/given.ts';

/** The most shots of one surface, with the first. */
export const MOST_SHOTS = 12;

export const shotsSchema = v.pipe(
  v.array(refSchema),
  v.maxLength(MOST_SHOTS - 1, `must be at most ${MOST_SHOTS - 1} more shots`),
);

const within = (low: number, high: number, unit: string) =>
  v.pipe(
    v.number('must be a number'),
    v.minValue(low, `must be ${low} to ${high}${unit}`),
    v.maxValue(high, `must be ${low} to ${high}${unit}`),
  );

/** Where the light of each shot comes from, the first shot first; null where nobody has said. */
export const directionsSchema = v.pipe(
  v.array(v.nullable(v.strictObject({ azimuth: within(0, 360, '°'), height: within(5, 90, '°') }))),
  v.maxLength(MOST_SHOTS, `must be at most ${MOST_SHOTS} directions`),
);

export const ballSchema = v.nullable(
  v.strictObject({ x: within(0, 1, ''), y: within(0, 1, ''), radius: within(0.005, 0.5, '') }),
);

/** How the directions of the lights are known. */
export const LIGHTS_FROM = ['found', 'typed', 'ball'] as const;
export type LightsFrom = (typeof LIGHTS_FROM)[number];
