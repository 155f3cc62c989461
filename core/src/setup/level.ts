import { luminance } from '../planes/luminance.ts';
import { Raster } from '../raster/raster.ts';
import { resizeArea } from '../sampling/resize.ts';
import { mainDirection } from '../stations/square/direction.ts';
import { runToEnd } from '../work/steps.ts';
import { proposedSettings } from './proposal.ts';
import type { SetupStep } from './scene.ts';

const MEASURED = 512;
/** How clearly one direction must stand out, see `MainDirection`. */
const CLEAR = 2;
/** Rotations below this are not worth resampling for; above, a corner of the photo would be lost. */
const LEAST_DEGREES = 0.3;
const MOST_DEGREES = 15;
/** How far the halves of the photo may differ: beyond it, it was taken at an angle or has no one direction. */
const AGREEMENT_DEGREES = 1;

/** Rotates the crop to the dominant direction of lines, where the halves of the photo agree on it. */
export const proposeLevel: SetupStep = async (scene) => {
  // A tile that is complete is left alone.
  if (scene.recipe.stations.join.method === 'none') return [];
  const { picture } = (await scene.evaluate('source')).outputs.source!;
  const grey = new Raster(picture.width, picture.height, [luminance(picture)]);
  const scale = Math.min(1, MEASURED / Math.max(grey.width, grey.height));
  const small = resizeArea(grey, Math.round(grey.width * scale), Math.round(grey.height * scale));
  const { width, height } = small;
  const directionOf = (part: Raster) => runToEnd(mainDirection(part.planes[0], part.width, part.height));
  const whole = directionOf(small);
  const { degrees, plain } = whole;
  if (plain < CLEAR || Math.abs(degrees) < LEAST_DEGREES || Math.abs(degrees) > MOST_DEGREES) return [];
  const halves = [
    small.cut(0, 0, width >> 1, height),
    small.cut(width - (width >> 1), 0, width >> 1, height),
    small.cut(0, 0, width, height >> 1),
    small.cut(0, height - (height >> 1), width, height >> 1),
  ].map(directionOf);
  if (halves.some((half) => Math.abs(half.degrees - degrees) > AGREEMENT_DEGREES)) return [];
  const turnDegrees = Math.round(degrees * 20) / 20;
  const settings = proposedSettings(scene.recipe, 'square', { turnDegrees });
  if (settings.length === 0) return [];
  const words = `${turnDegrees.toFixed(2).replace('-', '−')}°`;
  return [
    {
      id: 'level',
      station: 'square',
      title: `Rotated by ${words}`,
      reason: `Lines run ${words} off level, in every part of the photo.`,
      settings,
    },
  ];
};
