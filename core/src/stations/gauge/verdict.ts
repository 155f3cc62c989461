import { albedoBand, type ChartLine, lineOf } from '../../chart/chart.ts';
import { LUMINANCE } from '../../colour/luminance-of.ts';
import { KERNELS } from '../../kernels/kernels.ts';
import { PLANES } from '../../memory/pool.ts';
import { isOneColour } from '../../statistics/one-colour.ts';
import { thinned } from '../../statistics/thinned.ts';
import type { WorkContext } from '../../team/context.ts';
import type { Figure, Remedy, Verdict, VerdictState } from '../../verdict.ts';
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

/** What was measured on the albedo, and how it compares with the chart. */
interface Found {
  line: ChartLine | null;
  band: [number, number] | null;
  median: number;
  /** Whether the median is in the band, where there is one. */
  inside: boolean;
  /** Shares in percent. */
  inShare: number;
  beyondShare: number;
  zoneMedians: (number | null)[];
  /** Names of chart lines whose zones are outside their bands. */
  outer: string[];
  /** The patches disagree. */
  isLoose: boolean;
  /** The gain is so large or small that it may be another surface. */
  isFar: boolean;
  needsLine: boolean;
  /** The albedo is one colour, as of a tile whose look is made by coats. */
  isPlain: boolean;
}

const isIn = (value: number, [low, high]: [number, number]) => value >= low * 0.999 && value <= high * 1.001;

const surfaceOf = (line: ChartLine | null) => (line?.kind === 'metal' ? 'metal' : 'dielectric');

function sentenceOf(
  { line, band, median, inside, beyondShare, isPlain }: Found,
  { patches }: GaugeDecision,
): string {
  const surface = surfaceOf(line);
  const range = band && `the band ${band[0].toFixed(2)}–${band[1].toFixed(2)}`;
  const where = !band
    ? patches
      ? 'by the patches in the photo'
      : isPlain
        ? 'one colour'
        : 'no reference chosen'
    : `${inside ? 'inside' : median < band[0] ? 'below' : 'above'} ${range}`;
  const beyond =
    beyondShare < 0.005
      ? `Nothing is beyond what a ${surface} has.`
      : `${beyondShare.toFixed(1)} % is beyond what any ${surface} has.`;
  const count = patches?.errors.length ?? 0;
  const byPatches = patches
    ? ` ${count === 1 ? 'One patch sets' : `${count} patches set`} exposure and white; ${(100 * patches.residual).toFixed(1)} % remains as error.`
    : '';
  return `Median ${median.toFixed(3)}, ${where}. ${beyond}${byPatches}`;
}

function adviceOf(found: Found, { patches, gain }: GaugeDecision, empty: readonly string[]): string {
  const { line, outer, isLoose, isFar, needsLine } = found;
  return [
    needsLine ? 'Choose the line of the chart that is nearest to this surface.' : '',
    outer.length > 0 ? `Outside its band: ${outer.join(', ')}. Bring that zone’s exposure back.` : '',
    empty.length > 0
      ? `${empty.map((name) => `“${name}”`).join(', ')} picks nothing: widen its reach or range, or paint it.`
      : '',
    isFar
      ? line?.kind === 'metal'
        ? 'The photo is far from bare metal: perhaps a dielectric is meant, or a zone of metal.'
        : `Reaching the band needs ×${gain.toFixed(gain < 1 ? 2 : 1)} gain. Is this the right reference?`
      : '',
    patches?.burnt ? 'A patch is clipped in the photo and cannot be used: choose a darker one.' : '',
    isLoose && patches
      ? `The patches disagree (${patches.errors.map(signed).join(', ')}): they are not lit alike, or their values are not right.`
      : '',
  ]
    .filter(Boolean)
    .join(' ');
}

const setting = (key: keyof GaugeSettings, value: unknown) => [{ station: 'gauge', key, value }];

function remediesOf({ inside, beyondShare }: Found): Remedy[] {
  if (!inside) {
    return [
      {
        advice: 'Turn Fit on, or bring the exposure back.',
        words: 'Turn Fit on',
        settings: [...setting('fit', true), ...setting('exposure', 0)],
      },
    ];
  }
  return beyondShare > 1
    ? [
        {
          advice: 'Turn on Soft limits, or lower the contrast.',
          words: 'Turn on Soft limits',
          settings: setting('hold', true),
        },
      ]
    : [];
}

function briefOf({ line, band, median, inside, isPlain }: Found, { patches }: GaugeDecision): string {
  if (!line && !patches) return isPlain ? 'one colour' : 'no line chosen';
  if (inside) return `median ${median.toFixed(3)}`;
  return `median ${median < band![0] ? 'too dark' : 'too bright'}`;
}

function figuresOf(found: Found, { patches }: GaugeDecision, lines: readonly (ChartLine | null)[]): Figure[] {
  const { line, band, median, inShare, beyondShare, zoneMedians } = found;
  const zones = lines.flatMap((own, k): Figure[] => {
    const value = zoneMedians[k];
    return own && value !== null ? [{ id: `zone ${k}`, label: `Median, ${own.name}`, value, unit: 'Y' }] : [];
  });
  const residual: Figure[] = patches
    ? [
        {
          id: 'residual',
          label: 'Patch fit error',
          value: 100 * patches.residual,
          unit: '%',
          limit: 100 * LOOSE,
        },
      ]
    : [];
  return [
    { id: 'median', label: 'Median', value: median, unit: 'Y' },
    ...(band ? [{ id: 'inBand', label: 'Inside the band', value: inShare, unit: '%' }] : []),
    { id: 'beyond', label: `Beyond any ${surfaceOf(line)}`, value: beyondShare, unit: '%', limit: 1 },
    ...zones,
    ...residual,
  ];
}

function stateOf(
  { inside, outer, beyondShare, needsLine, isLoose, isFar }: Found,
  hasEmpty: boolean,
): VerdictState {
  if (!inside || outer.length > 0) return 'wrong';
  return beyondShare > 1 || needsLine || isLoose || isFar || hasEmpty ? 'look' : 'fine';
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
  const lines = output.zones?.lines ?? [];
  const { patches, gain } = decided;
  const isPlain = isOneColour({ planes });
  const found: Found = {
    line,
    band,
    median,
    inside: band && ofRest > 0 ? isIn(median, band) : true,
    inShare: (100 * inBand) / Math.max(1, ofRest),
    beyondShare: (100 * countBeyond(marks)) / Math.max(1, counted),
    zoneMedians,
    outer: lines.flatMap((own, k) => {
      const value = zoneMedians[k];
      return own && value !== null && !isIn(value, albedoBand(own)) ? [own.name] : [];
    }),
    isLoose: patches !== null && patches.residual > LOOSE,
    isFar: band !== null && chosen.fit && patches === null && (gain > FAR || gain < 1 / FAR),
    needsLine: !line && patches === null && !isPlain,
    isPlain,
  };
  return {
    state: stateOf(found, output.empty.length > 0),
    brief: briefOf(found, decided),
    sentence: sentenceOf(found, decided),
    advice: adviceOf(found, decided, output.empty),
    remedies: remediesOf(found),
    figures: figuresOf(found, decided, lines),
  };
}
