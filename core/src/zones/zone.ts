import * as v from 'valibot';
import { strokeEntries } from '../strokes/stroke.ts';

/** What a zone can be picked by the values of: 0..1, slope as a share of 90°. */
export const ZONE_MAPS = [
  'luminance',
  'height',
  'slope',
  'cavity',
  'occlusion',
  'opacity',
  'roughness',
  'metallic',
] as const;
export type ZoneMap = (typeof ZONE_MAPS)[number];

/** Those that Relief makes. */
const OF_RELIEF: readonly ZoneMap[] = ['height', 'slope', 'cavity', 'occlusion'];

const share = v.pipe(v.number(), v.minValue(0), v.maxValue(1));
const how = v.picklist(['and', 'or', 'without']);

const partSchema = v.variant('by', [
  v.strictObject({
    by: v.literal('colour'),
    how,
    /** sRGB. */
    colour: v.pipe(v.string(), v.regex(/^#[0-9a-f]{6}$/i, 'must be a colour such as #8a7f70')),
    /** Distance in OKLab at which half is picked. */
    reach: v.pipe(v.number(), v.minValue(0.002), v.maxValue(1)),
    softness: share,
  }),
  v.strictObject({
    by: v.literal('range'),
    how,
    map: v.picklist(ZONE_MAPS),
    from: share,
    to: share,
    softness: share,
  }),
  v.strictObject({
    by: v.literal('brush'),
    how,
    strokes: v.pipe(v.array(v.strictObject({ ...strokeEntries, erase: v.boolean() })), v.maxLength(2000)),
  }),
]);

/** One way of picking; `how` joins it to what the parts before it picked (of the first it says nothing). */
export type ZonePart = v.InferOutput<typeof partSchema>;

const zoneSchema = v.strictObject({
  id: v.pipe(v.string(), v.regex(/^[a-z0-9-]{1,40}$/)),
  name: v.pipe(v.string(), v.minLength(1), v.maxLength(60)),
  parts: v.pipe(v.array(partSchema), v.minLength(1), v.maxLength(12)),
  /** How wet it is, 0 dry to 1 soaked. */
  wetness: share,
});
export type Zone = v.InferOutput<typeof zoneSchema>;

/** The zones of a tile. */
export const zonesSchema = v.pipe(
  v.array(zoneSchema),
  v.maxLength(12),
  v.check((zones) => new Set(zones.map((zone) => zone.id)).size === zones.length, 'has two zones of one id'),
);

const reads = (zones: readonly Zone[], maps: readonly ZoneMap[]): boolean =>
  zones.some((zone) => zone.parts.some((part) => part.by === 'range' && maps.includes(part.map)));

/** Whether some zone is picked by a map that Relief makes. */
export const readsRelief = (zones: readonly Zone[]): boolean => reads(zones, OF_RELIEF);

/** Whether some zone is picked by occlusion. */
export const readsOcclusion = (zones: readonly Zone[]): boolean => reads(zones, ['occlusion']);

/** Zones without what was painted on one picture. */
export const withoutStrokes = (zones: readonly Zone[]): Zone[] =>
  zones.map((zone) => ({
    ...zone,
    parts: zone.parts.map((part) => (part.by === 'brush' ? { ...part, strokes: [] } : part)),
  }));
