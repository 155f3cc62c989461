import { number } from '../../settings/kinds.ts';

/** Where the middle of what is placed once on the tile is. */
export const MIDDLE = {
  x: number({
    label: 'Across',
    help: 'Where its middle is, as a share of the tile’s width.',
    default: 0.5,
    min: -1,
    max: 2,
    step: 0.005,
    unit: '',
  }),
  y: number({
    label: 'Down',
    help: 'Where its middle is, as a share of the tile’s height.',
    default: 0.5,
    min: -1,
    max: 2,
    step: 0.005,
    unit: '',
  }),
};

/** How far it is turned. */
export const ROTATION = number({
  label: 'Rotation',
  help: 'Clockwise about its middle.',
  default: 0,
  min: -180,
  max: 180,
  step: 1,
  unit: '°',
});
