import { Raster } from '../../raster/raster.ts';
import { planeOfChannel } from '../../surface/surface.ts';
import { runSteps } from '../../work/steps.ts';
import type { Inquiry } from '../inquiry.ts';
import { colourPlanes } from './blend/over.ts';
import { coatAlone, sceneBelow } from './climb.ts';
import type { Channel } from './layers.ts';
import type { CoatsInput } from './scene.ts';
import type { CoatsSettings } from './settings.ts';
import { coats } from './station.ts';

/** Which coat, and what of it: its mask, or what it puts into a channel. */
export interface AskedCoat {
  id: string;
  what: 'mask' | Channel;
}

/** A coat by itself: values 0..1 of its mask or of a channel (linear RGB of a colour), or its height in mm; and the mask's share of the tile. */
export interface CoatAlone {
  picture: Raster;
  cover: number;
}

/** A coat by itself, as its mask and its values come out over what is below it. Null where it has no effect, or nothing for the channel. */
export const COAT_ALONE: Inquiry<AskedCoat, never, CoatAlone | null> = {
  station: coats.name,
  async answer({ input, frame, settings, context }, { id, what }) {
    const work = await context();
    const below = await sceneBelow(id, settings as CoatsSettings, (await input()) as CoatsInput, frame, work);
    if (!below) return null;
    const count = frame.width * frame.height;
    const { cover, value } = await coatAlone(below, what === 'mask' ? null : what);
    const covered = planeOfChannel(cover, count);
    let sum = 0;
    for (let i = 0; i < count; i++) sum += covered[i];
    const of = (planes: readonly Float32Array[]) =>
      new Raster(
        frame.width,
        frame.height,
        planes.map((plane) => plane.slice()),
      );
    if (what === 'mask') return { picture: of([covered]), cover: sum / count };
    if (!value) return null;
    if (value.kind === 'single')
      return { picture: of([planeOfChannel(value.of, count)]), cover: sum / count };
    const planes = await runSteps(colourPlanes(value.of, count), work.checkpoint);
    return { picture: new Raster(frame.width, frame.height, planes), cover: sum / count };
  },
};
