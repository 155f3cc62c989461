import { zoneId } from '../../../masks/zone-id.ts';
import { choice, group, list, number } from '../../../settings/kinds.ts';

/** How the tone of a zone is read. */
export const ZONE_READINGS = ['rest', 'inverse', 'flat', 'raised', 'recessed'] as const;
export type ZoneReading = (typeof ZONE_READINGS)[number];

/** What Relief does to one zone. */
export const zoneReadings = list({
  label: 'Readings of zones',
  help: 'How the tone of a zone is read, and how far it stands above the rest.',
  group: group({ id: 'zones', title: 'Zones' }),
  most: 12,
  itemWords: ({ zone }) => zone,
  item: {
    zone: zoneId,
    reading: choice({
      label: 'Reading',
      help: 'rest: tone as everywhere. inverse: what is high elsewhere is low here. flat: no tone. raised, recessed: no tone, but a rise or a dip by Level, round from the border to the middle.',
      default: 'rest',
      options: ZONE_READINGS,
      names: ['As the rest', 'The other way round', 'Flat', 'Raised', 'Recessed'],
    }),
    levelMm: number({
      label: 'Level',
      help: 'How far the zone stands above the rest, below 0 under it; for raised and recessed how far its middle rises or dips.',
      default: 0,
      min: -200,
      max: 200,
      step: 0.1,
      unit: 'mm',
    }),
  },
});
