import { list } from '../settings/kinds.ts';
import { MASK_SETTINGS } from './mask.ts';

/** The named masks of a tile, which Gauge and Finish have zone values for. */
export const masks = list({
  label: 'Zones',
  help: 'Parts of the tile selected by colour, by the values of a map or by a brush, for Gauge and Finish. Strokes stay with their picture.',
  most: 12,
  identity: 'id',
  item: MASK_SETTINGS,
  itemWords: ({ name }) => name,
});
