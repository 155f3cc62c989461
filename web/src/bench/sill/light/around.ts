import type { AroundName, PlaceSun, SkyLight } from '@zesty-tile/core';
import * as Comlink from 'comlink';

/** A unit vector, y up and z towards the viewer; or a linear colour. */
export type Direction = [number, number, number];

/** Half floats, four a pixel, the lowest row first. */
export interface AroundPicture {
  width: number;
  height: number;
  rgba: Uint16Array<ArrayBuffer>;
}

/** Light from all sides, ready to be drawn with. */
export interface AroundLight {
  /** What is seen, and mirrored sharply. */
  picture: AroundPicture;
  /** What rough surfaces mirror, one roughness below the other. */
  blurred: AroundPicture;
  /** Irradiance for every normal, of all of it and of its lower half. */
  harmonics: Direction[];
  below: Direction[];
  /** Lights that stand for the upper half. */
  lights: SkyLight[];
  /** What is seen just above the horizon, all round. */
  horizon: Direction;
  /** Null where the picture holds its sun already. */
  sun: PlaceSun | null;
}

export type PanoramaFormat = 'hdr' | 'exr' | 'picture';

export interface AroundWorker {
  /** One of the project's own surroundings under a sun. */
  made(name: AroundName, sun: Direction): Promise<AroundLight>;
  /** What is seen of them, this many pixels wide. */
  sharp(name: AroundName, sun: Direction, width: number): Promise<AroundPicture>;
  /** A 360° picture of the user's. @throws Error in plain words. */
  own(format: PanoramaFormat, bytes: ArrayBuffer): Promise<AroundLight>;
}

let worker: Comlink.Remote<AroundWorker> | null = null;

/** The worker that surroundings are made in, started when it is first asked for. */
export function aroundWorker(): Comlink.Remote<AroundWorker> {
  worker ??= Comlink.wrap<AroundWorker>(
    new Worker(new URL('./around-worker.ts', import.meta.url), { type: 'module' }),
  );
  return worker;
}
