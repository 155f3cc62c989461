import { maskCover } from '../../../masks/cover.ts';
import { zoneId } from '../../../masks/zone-id.ts';
import { partKind } from './part.ts';

/** A zone of the tile, by its id. One that is not there selects nothing. */
export const zone = partKind({
  title: 'Zone',
  settings: { zone: { ...zoneId, help: 'The id of the zone that is selected.' } },
  reads: () => [],
  async values({ zone: id }, { input, frame, context }) {
    const mask = frame.masks.find((one) => one.id === id);
    return mask ? maskCover(mask, input, frame, context) : 0;
  },
});
