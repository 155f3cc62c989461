import { lineF0, lineOf } from '../../chart/chart.ts';
import { linearOfHex } from '../../colour/hex.ts';
import { maskCover } from '../../masks/cover.ts';
import { wetF0, wetRoughness } from '../../masks/wet.ts';
import { mapping } from '../../planes/mapped.ts';
import { Raster } from '../../raster/raster.ts';
import type { WorkContext } from '../../team/context.ts';
import type { Frame } from '../../tile/frame.ts';
import { runSteps, type Steps } from '../../work/steps.ts';
import type { FinishInput } from './input.ts';
import { isMetal } from './metal.ts';
import type { FinishOutput } from './output.ts';
import { intoBand } from './roughness.ts';
import type { FinishSettings } from './settings.ts';

/** One value, or a plane of them, blended towards another value by how much a zone covers each pixel. */
function* blended(
  under: number | Float32Array,
  value: number,
  cover: Float32Array,
): Steps<number | Float32Array> {
  if (under === value) return under;
  return typeof under === 'number'
    ? yield* mapping(cover, (share) => under + share * (value - under))
    : yield* mapping(under, (old, i) => old + cover[i] * (value - old));
}

/** F0 of every channel and pixel from what it was. */
function* f0Over(
  under: FinishOutput['f0'],
  to: (old: number, channel: number, i: number) => number,
  cover: Float32Array,
  frame: Frame,
): Steps<Raster> {
  const planes: Float32Array[] = [];
  for (let c = 0; c < 3; c++) {
    const made = Array.isArray(under)
      ? mapping(cover, (_share, i) => to(under[c], c, i))
      : mapping(under.planes[c], (old, i) => to(old, c, i));
    planes.push(yield* made);
  }
  return new Raster(frame.width, frame.height, planes);
}

type ZoneFinish = FinishSettings['zoneFinish'][number];

/** The surface with a zone's own roughness, F0 and metalness where the zone covers it. */
async function withValues(
  { roughness, f0, metallic, isTruth }: FinishOutput,
  values: ZoneFinish,
  stack: Float32Array,
  cover: Float32Array,
  frame: Frame,
  { checkpoint }: WorkContext,
): Promise<FinishOutput> {
  const own = lineOf(values);
  const band = values.band ?? own?.roughness ?? null;
  if (band) {
    const inBand = await runSteps(intoBand(stack, band), checkpoint);
    const over = (old: number, i: number) => old + cover[i] * (inBand[i] - old);
    roughness = await runSteps(mapping(roughness, over), checkpoint);
  }
  const ownF0 = values.f0 ? linearOfHex(values.f0) : own ? lineF0(own) : null;
  if (ownF0) {
    const over = (old: number, c: number, i: number) => old + cover[i] * (ownF0[c] - old);
    f0 = await runSteps(f0Over(f0, over, cover, frame), checkpoint);
  }
  if (values.metallic !== 'line' || own) {
    const zoneMetallic = Number(isMetal(values.metallic, own));
    metallic = await runSteps(blended(metallic, zoneMetallic, cover), checkpoint);
  }
  return { roughness, f0, metallic, isTruth };
}

/** The surface made wetter where a zone covers it. */
async function wetted(
  { roughness, f0, metallic, isTruth }: FinishOutput,
  wetness: number,
  cover: Float32Array,
  frame: Frame,
  { checkpoint }: WorkContext,
): Promise<FinishOutput> {
  const wet = (dry: number, i: number) => wetRoughness(dry, wetness * cover[i]);
  const wetter = (old: number, _c: number, i: number) => wetF0(old, wetness * cover[i]);
  return {
    roughness: await runSteps(mapping(roughness, wet), checkpoint),
    f0: await runSteps(f0Over(f0, wetter, cover, frame), checkpoint),
    metallic,
    isTruth,
  };
}

/** The surface of the whole tile with each zone's values blended in; `stack` is the roughness before its band, 0…1. */
export async function withZones(
  plain: FinishOutput,
  stack: Float32Array,
  input: FinishInput,
  chosen: FinishSettings,
  frame: Frame,
  context: WorkContext,
): Promise<FinishOutput> {
  let out = plain;
  for (const zone of frame.masks) {
    const values = chosen.zoneFinish.find((one) => one.zone === zone.id);
    if (!values && zone.wetness === 0) continue;
    const cover = await context.part('zone', zone.parts, () => maskCover(zone, input, frame, context));
    await context.checkpoint(0.8);
    if (values) out = await withValues(out, values, stack, cover, frame, context);
    if (zone.wetness > 0) out = await wetted(out, zone.wetness, cover, frame, context);
  }
  return out;
}
