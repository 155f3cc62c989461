import { choice } from '../../../settings/kinds.ts';
import { PLACED, pictureOfPlaced, placedPicture, placedTone } from '../placed.ts';
import { partKind } from './part.ts';

/** The tones of a picture, or what it covers. */
export const picture = partKind({
  title: 'Picture',
  settings: {
    ...PLACED,
    read: choice({
      label: 'Selects',
      help: 'Tones: white is selected, black is not. Alpha: what of the picture is opaque.',
      default: 'tone',
      options: ['tone', 'alpha'],
      names: ['Tones', 'Alpha'],
    }),
  },
  pictures: (placed) => pictureOfPlaced(placed),
  reads: () => [],
  async values({ read, ...placed }, scene) {
    if (read === 'tone') return placedTone(placed, scene);
    const found = await placedPicture(placed, scene, false);
    return found ? found.planes[3].slice() : 0;
  },
});
