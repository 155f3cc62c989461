import * as v from 'valibot';
import { srgbToLinear } from '../../../colour/srgb.ts';
import { repeated } from '../../../sampling/repeat.ts';
import { data, number } from '../../../settings/kinds.ts';
import type { Frame } from '../../../tile/frame.ts';
import { type PictureRef, refSchema } from '../../../tile/given.ts';
import { CHANNELS, type Channel, isColourChannel } from '../layers.ts';
import { type Value, valueKind } from './kind.ts';

const map = v.optional(refSchema);

/** The finished maps of a tile as they were when it was chosen. */
const otherSchema = v.strictObject({
  tileId: v.string(),
  name: v.string(),
  revision: v.number(),
  edgeMetres: v.pipe(v.number(), v.gtValue(0)),
  /** Between 0 and 1 of its height, mm. */
  depthMm: v.pipe(v.number(), v.minValue(0)),
  maps: v.strictObject({
    colour: map,
    roughness: map,
    metallic: map,
    height: map,
    opacity: map,
    emission: map,
  } satisfies Partial<Record<Channel, unknown>>),
});
export type OtherTile = v.InferOutput<typeof otherSchema>;

/** How often another tile repeats along the longer edge so that it keeps its size in metres as nearly as it can. */
export const tileRepeats = (other: OtherTile, frame: Pick<Frame, 'edgeMetres'>): number =>
  Math.max(1, Math.min(64, Math.round(frame.edgeMetres / other.edgeMetres)));

/** Another tile of the project, at its own size in metres as nearly as whole repeats allow. */
export const tile = valueKind({
  title: 'Tile',
  channels: CHANNELS,
  settings: {
    other: data<OtherTile | null>({
      label: 'Tile',
      help: 'A tile of the project, as it was when it was chosen.',
      default: null,
      schema: v.nullable(otherSchema),
      example: 'null',
      words: (value) => value?.name ?? 'none',
    }),
    quarters: number({
      label: 'Quarter turns',
      help: 'Clockwise.',
      default: 0,
      min: 0,
      max: 3,
      step: 1,
      unit: '',
    }),
  },
  pictures: ({ other }) =>
    Object.fromEntries(
      Object.entries(other?.maps ?? {}).flatMap(([name, ref]) => (ref ? [[name, ref]] : [])),
    ),
  reads: () => [],
  async value({ other, quarters }, channel, { frame, context }): Promise<Value | null> {
    const maps: Partial<Record<Channel, PictureRef>> = other?.maps ?? {};
    const ref = maps[channel];
    if (!other || !ref) return null;
    const isColour = isColourChannel(channel);
    const count = tileRepeats(other, frame);
    return context.part('other tile', [ref.sha256, count, quarters, channel, other.depthMm], async () => {
      const codes = await context.picture(ref, Math.ceil(frame.size / count), isColour ? 3 : 1);
      const own = codes.mapPlanes((plane) => plane.map(isColour ? srgbToLinear : (value) => value));
      const picture = repeated(own, frame, { count, quarters });
      if (isColour) return { kind: 'colour', of: picture } as const;
      const [plane] = picture.planes;
      return {
        kind: 'single',
        of: channel === 'height' ? plane.map((value) => value * other.depthMm) : plane,
      } as const;
    });
  },
});
