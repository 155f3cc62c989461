import { albedoBand, lineOf } from '../../chart/chart.ts';
import { LUMINANCE } from '../../colour/luminance-of.ts';
import { KERNELS } from '../../kernels/kernels.ts';
import { PLANES } from '../../memory/pool.ts';
import { thinned } from '../../statistics/thinned.ts';
import type { WorkContext } from '../../team/context.ts';
import type { Verdict } from '../../verdict.ts';
import { runSteps } from '../../work/steps.ts';
import type { GaugeDecision } from './decision.ts';
import { isBeyond, marking } from './marks.ts';
import type { GaugeOutput } from './output.ts';
import type { GaugeSettings } from './settings.ts';

/** Beyond this gain a surface was hardly the one the line speaks of. */
const FAR = 5;
/** A residual of patches above this is worth a look, relative. */
const LOOSE = 0.06;

const signed = (share: number) => `${share < 0 ? '−' : '+'}${Math.abs(100 * share).toFixed(1)} %`;

function countBeyond(marks: Uint8Array): number {
  let count = 0;
  for (let i = 0; i < marks.length; i++) if (isBeyond(marks[i])) count++;
  return count;
}

/** Where the median of the albedo lies, and how much of it no real surface has. Measured dry. */
export async function verdict(
  output: GaugeOutput,
  _input: unknown,
  chosen: GaugeSettings,
  decided: GaugeDecision,
  _frame: unknown,
  { checkpoint }: Pick<WorkContext, 'checkpoint'>,
): Promise<Verdict> {
  const zones = output.zones && { ...output.zones, belongs: thinned(output.zones.belongs) };
  const planes: Float32Array[] = [];
  for (const plane of output.dry.planes) {
    planes.push(thinned(plane));
    await checkpoint(1);
  }
  const y = KERNELS.sumPlanes(planes, LUMINANCE);
  await checkpoint(1);
  const { marks, counted, ofRest, inBand, median, zoneMedians } = await runSteps(
    marking(y, chosen, zones),
    checkpoint,
  );
  PLANES.give(y);
  await checkpoint(1);
  const line = lineOf(chosen);
  const band = line ? albedoBand(line) : null;
  const beyondShare = (100 * countBeyond(marks)) / Math.max(1, counted);
  const inShare = (100 * inBand) / Math.max(1, ofRest);
  const isIn = (value: number, [low, high]: [number, number]) =>
    value >= low * 0.999 && value <= high * 1.001;
  const inside = band && ofRest > 0 ? isIn(median, band) : true;
  const outer = (output.zones?.lines ?? []).flatMap((own, k) => {
    const value = zoneMedians[k];
    return own && value !== null && !isIn(value, albedoBand(own)) ? [own.name] : [];
  });
  const { patches } = decided;
  const loose = patches !== null && patches.residual > LOOSE;
  const isFar =
    band !== null && chosen.fit && patches === null && (decided.gain > FAR || decided.gain < 1 / FAR);
  const needsLine = !line && patches === null;
  const state =
    !inside || outer.length > 0
      ? 'wrong'
      : beyondShare > 1 || needsLine || loose || isFar || output.empty.length > 0
        ? 'look'
        : 'fine';
  const surface = line?.kind === 'metal' ? 'metal' : 'dielectric';
  const where = !band
    ? patches
      ? 'by the patches in the photo'
      : 'no line is chosen to hold it against'
    : inside
      ? `inside the band ${band[0].toFixed(2)}–${band[1].toFixed(2)}`
      : `${median < band[0] ? 'below' : 'above'} the band ${band[0].toFixed(2)}–${band[1].toFixed(2)}`;
  const beyondWords =
    beyondShare < 0.005
      ? `Nothing is beyond what a ${surface} has.`
      : `${beyondShare.toFixed(1)} % is beyond what any ${surface} has.`;
  const patchWords = patches
    ? ` ${patches.errors.length === 1 ? 'One patch sets' : `${patches.errors.length} patches set`} exposure and white; ${(100 * patches.residual).toFixed(1)} % is left over.`
    : '';
  const advice = [
    needsLine ? 'Choose the line of the chart that is nearest to this surface.' : '',
    !inside ? 'Turn Fit on, or bring the exposure back.' : '',
    inside && beyondShare > 1 ? 'Hold lights and darks, or lower the contrast.' : '',
    outer.length > 0 ? `Outside its band: ${outer.join(', ')}. Bring that zone’s exposure back.` : '',
    output.empty.length > 0
      ? `${output.empty.map((name) => `“${name}”`).join(', ')} picks nothing: widen its reach or range, or paint it.`
      : '',
    isFar
      ? line?.kind === 'metal'
        ? 'The photo is far from bare metal: perhaps a dielectric is meant, or a zone of metal.'
        : `It takes a gain of ×${decided.gain.toFixed(decided.gain < 1 ? 2 : 1)} to come there: is it this surface?`
      : '',
    patches?.burnt ? 'A patch is burnt out in the photo and tells nothing: use a darker one.' : '',
    loose
      ? `The patches disagree (${patches.errors.map(signed).join(', ')}): they are not lit alike, or their values are not right.`
      : '',
  ];
  return {
    state,
    brief:
      line || patches
        ? inside
          ? `median ${median.toFixed(3)}`
          : `median ${median < band![0] ? 'too dark' : 'too bright'}`
        : 'no line chosen',
    sentence: `Median ${median.toFixed(3)}, ${where}. ${beyondWords}${patchWords}`,
    advice: advice.filter(Boolean).join(' '),
    figures: [
      { id: 'median', label: 'Median', value: median, unit: 'Y' },
      ...(band ? [{ id: 'inBand', label: 'Inside the band', value: inShare, unit: '%' }] : []),
      { id: 'beyond', label: `Beyond any ${surface}`, value: beyondShare, unit: '%', limit: 1 },
      ...(output.zones?.lines ?? []).flatMap((own, k) => {
        const value = zoneMedians[k];
        return own && value !== null
          ? [{ id: `zone ${k}`, label: `Median, ${own.name}`, value, unit: 'Y' }]
          : [];
      }),
      ...(patches
        ? [
            {
              id: 'residual',
              label: 'Left over of the patches',
              value: 100 * patches.residual,
              unit: '%',
              limit: 100 * LOOSE,
            },
          ]
        : []),
    ],
  };
}
