import { albedoBand, albedoLimits, lineOf, NO_LINE } from '../../chart/chart.ts';
import type { Tone } from '../../colour/luminance-map.ts';
import { type MaskInput, maskCover } from '../../masks/cover.ts';
import { essenceOf, masksInUse, readsOcclusion, readsRelief } from '../../masks/in-use.ts';
import type { Mask } from '../../masks/mask.ts';
import { wetReflectance } from '../../masks/wet.ts';
import { luminance } from '../../planes/luminance.ts';
import { mapping } from '../../planes/mapped.ts';
import { Raster } from '../../raster/raster.ts';
import { statistics } from '../../statistics/statistics.ts';
import type { WorkContext } from '../../team/context.ts';
import type { Frame } from '../../tile/frame.ts';
import { runSteps } from '../../work/steps.ts';
import { relief } from '../relief/station.ts';
import type { SourceOutput } from '../source/output.ts';
import { source } from '../source/station.ts';
import { station } from '../station.ts';
import type { StyleOutput } from '../style/output.ts';
import { style } from '../style/station.ts';
import { decisionSchema, type GaugeDecision } from './decision.ts';
import { type Fit, fitTo } from './fit.ts';
import { BETWEEN, valuesOf } from './marks.ts';
import type { GaugeOutput } from './output.ts';
import { fitPatches, type PatchFit } from './patches.ts';
import { balanced, whiteGains } from './recolour.ts';
import { type GaugeSettings, settings, type ZoneTone } from './settings.ts';
import { applyTone } from './tone.ts';
import { verdict } from './verdict.ts';

/** What Gauge reads. Relief is there where a zone is selected by it, the photo where patches in it are asked for. */
export interface GaugeInput extends MaskInput {
  style: StyleOutput;
  source?: SourceOutput;
}

/** Shares of a zone's fullest cover from which on a pixel belongs to it, and up to which it does not touch it. */
const BELONGS = 0.9;
const TOUCHES = 0.1;
/** A zone that covers nothing by more than this selects nothing. */
const FAINT = 0.05;

interface ToneZone {
  tone: ZoneTone;
  name: string;
  cover: Float32Array;
}

/** Each zone that Gauge has values for, with what it covers. */
function toneZones(
  input: MaskInput,
  { zoneTones }: GaugeSettings,
  frame: Frame,
  context: WorkContext,
): Promise<ToneZone[]> {
  const known = zoneTones.flatMap((tone) => {
    const zone = frame.masks.find(({ id }) => id === tone.zone);
    return zone ? [{ tone, zone }] : [];
  });
  return Promise.all(
    known.map(async ({ tone, zone }) => ({
      tone,
      name: zone.name,
      cover: await context.part('zone', zone.parts, () => maskCover(zone, input, frame, context)),
    })),
  );
}

const hasLine = ({ line }: ZoneTone) => line !== NO_LINE;

/** To which zone with a line of its own each pixel belongs, the later before the earlier; null where there is none. */
function belonging(zones: ToneZone[], count: number): Uint8Array | null {
  const own = zones.filter(({ tone }) => hasLine(tone));
  if (own.length === 0) return null;
  const belongs = new Uint8Array(count);
  for (const [k, { cover }] of own.entries()) {
    const { max } = statistics(cover);
    if (max < FAINT) continue;
    for (let i = 0; i < count; i++) {
      if (cover[i] >= BELONGS * max) belongs[i] = k + 1;
      else if (cover[i] > TOUCHES * max) belongs[i] = BETWEEN;
    }
  }
  return belongs;
}

const gainsOf = (chosen: GaugeSettings, patches: PatchFit | null) => {
  const white = whiteGains(chosen.white);
  return patches ? white.map((gain, c) => gain * patches.balance[c]) : white;
};

const usedMasks = ({ zoneTones }: Pick<GaugeSettings, 'zoneTones'>, masks: readonly Mask[]) =>
  masksInUse(masks, zoneTones);

const byPatches = ({ fitBy, patches }: GaugeSettings) => fitBy === 'patches' && patches.length > 0;

/** Gauge: brings the albedo to values a real surface has. Touches nothing else. */
export const gauge = station({
  name: 'gauge',
  line: 'Bring the albedo to values a real surface has.',
  settings,
  reads: [style, relief],
  decidesFrom: [style, relief, source],
  // Relief is read only where a mask is selected by it, and the photo only where patches lie in it.
  isRead(name, chosen, masks) {
    if (name === relief.name) return readsRelief(usedMasks(chosen, masks));
    return name !== source.name || byPatches(chosen);
  },
  demands: (chosen, masks) => (readsOcclusion(usedMasks(chosen, masks)) ? [`${relief.name}.occlusion`] : []),
  usedMasks,
  // Readings only look.
  cacheKey: ({ readings: _readings, ...rest }, masks) => [rest, essenceOf(usedMasks(rest, masks))],
  shows: 'albedo',
  weight: 8,
  of: 'tile',
  decision: decisionSchema,
  decidesOn: (chosen, frame) => [
    [lineOf(chosen), chosen.fit, chosen.hold, chosen.countFrom, chosen.countTo, chosen.white],
    chosen.fitBy === 'percentiles' ? [chosen.fitLow, chosen.fitHigh] : null,
    byPatches(chosen) ? chosen.patches : null,
    chosen.zoneTones
      .filter(hasLine)
      .map((tone) => [tone.zone, lineOf(tone), frame.masks.find(({ id }) => id === tone.zone)?.parts]),
  ],
  async decide(input: GaugeInput, chosen, frame, context): Promise<GaugeDecision> {
    const [from, to] = [chosen.countFrom, chosen.countTo].sort((a, b) => a - b);
    // Percentiles of what counts.
    const rank = (percent: number) => from + ((to - from) * percent) / 100;
    const patches =
      byPatches(chosen) && input.source ? fitPatches(input.source.picture, chosen.patches) : null;
    const y = luminance(balanced(input.style.picture, gainsOf(chosen, patches)));
    const zones = await toneZones(input, chosen, frame, context);
    const belongs = belonging(zones, y.length);
    const wish = {
      fit: chosen.fit,
      hold: chosen.hold,
      by: chosen.fitBy === 'percentiles' ? ('percentiles' as const) : ('median' as const),
    };
    const ranks = { middle: rank(50), low: rank(chosen.fitLow), high: rank(chosen.fitHigh) };
    const rest = belongs ? valuesOf(y, belongs, 0) : y;
    const fitted = fitTo(rest, { ...wish, line: patches ? null : lineOf(chosen), ranks });
    return {
      ...fitted,
      ...(patches ? { gain: patches.gain } : {}),
      patches,
      zones: zones
        .filter(({ tone }) => hasLine(tone))
        .map(({ tone }, k) => ({
          zone: tone.zone,
          ...fitTo(valuesOf(y, belongs!, k + 1), {
            ...wish,
            line: lineOf(tone),
            ranks: { middle: 50, low: chosen.fitLow, high: chosen.fitHigh },
          }),
        })),
    };
  },
  async run(input: GaugeInput, chosen, decided, frame, context): Promise<GaugeOutput> {
    // Beside a given specular map stands a diffuse colour, and that of metal is black in truth.
    const isHeld = chosen.hold && !input.style.given.specular;
    const toneOf = (fit: Fit, exposure: number, contrast: number, hold: [number, number]): Tone => {
      const gain = fit.gain * chosen.eye * 2 ** exposure;
      return {
        gain,
        contrast: contrast * fit.contrast,
        pivot: Math.max(1e-4, fit.median * gain),
        hold: isHeld ? hold : null,
      };
    };
    const { hueDegrees, towards, pull } = chosen;
    const recolour = { strength: chosen.colour, hueDegrees, towards, pull };
    const gains = gainsOf(chosen, decided.patches);
    const picture = balanced(input.style.picture, gains);
    const limits = albedoLimits(lineOf(chosen));
    const tone = toneOf(decided, chosen.exposure, chosen.contrast, limits);
    const { painted } = input.style;
    const isApart = painted !== null && painted !== input.style.picture;
    let dry = await applyTone(picture, tone, recolour, context);
    const zones = await toneZones(input, chosen, frame, context);
    for (const { tone, cover } of zones) {
      const fit = decided.zones.find(({ zone }) => zone === tone.zone) ?? decided;
      const own = hasLine(tone) ? albedoLimits(lineOf(tone)) : limits;
      const zoneTone = toneOf(fit, chosen.exposure + tone.exposure, chosen.contrast * tone.contrast, own);
      dry = await applyTone(picture, zoneTone, recolour, context, { under: dry, cover });
    }
    // Metal has no pores to fill.
    const isMetal = (id: string) =>
      zones.some(({ tone }) => tone.zone === id && lineOf(tone)?.kind === 'metal');
    const wet = frame.masks.filter(({ id, wetness }) => wetness > 0 && !isMetal(id));
    let albedo = dry;
    for (const zone of wet) {
      const cover = await context.part('zone', zone.parts, () => maskCover(zone, input, frame, context));
      const planes: Float32Array[] = [];
      for (const plane of albedo.planes) {
        const wetter = (value: number, i: number) => wetReflectance(value, zone.wetness * cover[i]);
        planes.push(await runSteps(mapping(plane, wetter), context.checkpoint));
      }
      albedo = new Raster(albedo.width, albedo.height, planes);
    }
    const belongs = belonging(zones, dry.width * dry.height);
    const lines = zones.filter(({ tone }) => hasLine(tone)).map(({ tone }) => lineOf(tone));
    return {
      albedo,
      dry,
      painted: isApart ? await applyTone(balanced(painted, gains), tone, recolour, context) : null,
      zones: belongs && { belongs, lines },
      empty: zones.filter(({ cover }) => statistics(cover).max < FAINT).map(({ name }) => name),
    };
  },
  verdict,
});

/** The band a value of a pixel is compared with, by the line of its zone or of the rest. */
export const bandAt = (
  chosen: GaugeSettings,
  zones: GaugeOutput['zones'],
  i: number,
): [number, number] | null => {
  const part = zones?.belongs[i] ?? 0;
  const line = part === 0 ? lineOf(chosen) : (zones?.lines[part - 1] ?? null);
  return line && albedoBand(line);
};
