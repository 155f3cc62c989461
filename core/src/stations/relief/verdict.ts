import type { Raster } from '../../raster/raster.ts';
import { findingPercentiles } from '../../statistics/histogram.ts';
import { isOneColour } from '../../statistics/one-colour.ts';
import { readStep, thinned } from '../../statistics/thinned.ts';
import type { WorkContext } from '../../team/context.ts';
import type { Frame } from '../../tile/frame.ts';
import type { Remedy, Verdict } from '../../verdict.ts';
import { inParts, runSteps, type Steps } from '../../work/steps.ts';
import { isLit, lightOf, type ReliefDecision, type ReliefInput, reliefDepth } from './decision.ts';
import { GRAINY } from './evidence.ts';
import type { ReliefOutput } from './output.ts';
import type { ReliefSettings } from './settings.ts';

const STEEP_DEGREES = 60;
/** From here on the evidence is said to be against the dial. */
const STRONG = 0.5;
/** A depth that differs by more of it disagrees with the given normals. */
const DEPTH_SLACK = 0.05;
/** Below this no slanting light rules. */
const PLAIN = 0.06;
/** A normal whose length is further from 1 is no direction. */
const LENGTH_SLACK = 1e-3;

/** What is summed up over normals. */
interface Sums {
  steep: number;
  tiltX: number;
  tiltY: number;
  lowestZ: number;
  offLength: number;
}

/** Adds every so many normals of a range. */
function addTo(
  sums: Sums,
  [nx, ny, nz]: Float32Array[],
  steepZ: number,
  from: number,
  to: number,
  apart: number,
): void {
  let { steep, tiltX, tiltY, lowestZ, offLength } = sums;
  for (let i = from; i < to; i += apart) {
    const [x, y, z] = [nx[i], ny[i], nz[i]];
    if (z < steepZ) steep++;
    if (z < lowestZ) lowestZ = z;
    tiltX += x;
    tiltY += y;
    const off = Math.abs(Math.sqrt(x * x + y * y + z * z) - 1);
    if (off > offLength) offLength = off;
  }
  Object.assign(sums, { steep, tiltX, tiltY, lowestZ, offLength });
}

/** What normals come to. */
interface Told {
  steepShare: number;
  tilt: number;
  lowestZ: number;
  offLength: number;
}

/** How many normals are steep (%), how far all of them lean together, the lowest one's z, and how far a length is from 1. */
function* told(normals: Float32Array[]): Steps<Told> {
  const steepZ = Math.cos((STEEP_DEGREES * Math.PI) / 180);
  const sums: Sums = { steep: 0, tiltX: 0, tiltY: 0, lowestZ: 1, offLength: 0 };
  const [, , nz] = normals;
  const apart = readStep(nz.length);
  const count = Math.ceil(nz.length / apart);
  yield* inParts(count, (from, to) =>
    addTo(sums, normals, steepZ, from * apart, Math.min(nz.length, to * apart), apart),
  );
  const { steep, tiltX, tiltY, lowestZ, offLength } = sums;
  return {
    steepShare: (100 * steep) / count,
    tilt: Math.sqrt(tiltX * tiltX + tiltY * tiltY) / count,
    lowestZ,
    offLength,
  };
}

/** What the verdict found that can be put right at once. */
interface Findings {
  /** Which parts are raised, where that is against the setting. */
  raised: 'bright' | 'dark' | null;
  /** The depth that the supplied normals imply, where it is another one. */
  impliedMm: number | null;
  /** Height is read from a light of which nothing is seen. */
  isUnlit: boolean;
}

function remediesOf({ raised, impliedMm, isUnlit }: Findings): Remedy[] {
  const remedies: Remedy[] = [];
  const add = (advice: string, words: string, key: keyof ReliefSettings, value: unknown) =>
    remedies.push({ advice, words, settings: [{ station: 'relief', key, value }] });
  if (impliedMm !== null) {
    const depthMm = Math.round(10 * impliedMm) / 10;
    add(
      `The supplied normals imply a depth of ${depthMm.toFixed(1)} mm: set the depth to that, so that height and normals agree.`,
      `Set depth ${depthMm.toFixed(1)} mm`,
      'depthMm',
      depthMm,
    );
  }
  if (raised) {
    add(
      `Thin lines and shading suggest ${raised} areas are raised. Compare both under light.`,
      raised === 'bright' ? 'Use bright is high' : 'Use dark is high',
      'polarity',
      raised,
    );
  }
  if (isUnlit) {
    add(
      'No dominant light direction in this photo: set it by hand, or read height from tone.',
      'Read height from tone',
      'heightFrom',
      'tone',
    );
  }
  return remedies;
}

const STEEP_ADVICE = 'Lower the depth, or the weights of the fine bands: so much steepness is mostly noise.';
const STEEP_JOINTS_ADVICE =
  'Give the joints a wider bevel or less depth: so steep an edge has few pixels to be seen on.';
const FACELESS_ADVICE =
  'The net of joints closes no face, so none is carved: take the other lines, repair the net by hand, or read height without joints.';
const GRAIN_ADVICE = 'The surface has a grain that looks like shading: set the direction of light by hand.';

interface Concerns {
  /** What is said of a flat surface; null where it is none. */
  flat: string | null;
  isSteep: boolean;
  hasJoints: boolean;
  isFaceless: boolean;
  isGrainy: boolean;
}

/** What to do about all that is to be looked at. */
const adviceOf = ({ flat, isSteep, hasJoints, isFaceless, isGrainy }: Concerns): string =>
  [
    flat ?? (isSteep ? (hasJoints ? STEEP_JOINTS_ADVICE : STEEP_ADVICE) : ''),
    isFaceless ? FACELESS_ADVICE : '',
    isGrainy ? GRAIN_ADVICE : '',
  ]
    .filter(Boolean)
    .join(' ');

/** What is said of a flat surface. A tile that starts from one colour is flat by intent. */
const flatWords = (picture: Raster): Pick<Verdict, 'state' | 'sentence' | 'advice'> =>
  isOneColour(picture)
    ? {
        state: 'fine',
        sentence:
          'One colour holds no detail to read height from: the surface is flat until coats give it height.',
        advice: '',
      }
    : {
        state: 'look',
        sentence: 'The picture holds no detail to read height from: the surface is flat.',
        advice: 'Give it depth, or raise a band.',
      };

/** How deep, how steep, how level it came out; and what speaks against the way it was read. */
export async function verdict(
  output: ReliefOutput,
  input: ReliefInput,
  chosen: ReliefSettings,
  decided: ReliefDecision,
  frame: Frame,
  { checkpoint }: Pick<WorkContext, 'checkpoint'>,
): Promise<Verdict> {
  const { evidence, light } = decided;
  const isGiven = input.style.given.height !== undefined;
  const heights = thinned(output.height);
  await checkpoint(1);
  const [low, high] = await runSteps(findingPercentiles(heights, [0.5, 99.5]), checkpoint);
  await checkpoint(1);
  const { steepShare, tilt, lowestZ, offLength } = await runSteps(told(output.normal.planes), checkpoint);
  await checkpoint(1);
  const depthMm = reliefDepth(chosen, decided);
  const range = (high - low) * depthMm;
  const flat = !(high > low) || range === 0 ? flatWords(input.style.picture) : null;
  const steepest = (Math.acos(Math.min(1, lowestZ)) * 180) / Math.PI;
  const share = depthMm / 1000 / frame.edgeMetres;
  const isIntegrated = !isGiven && chosen.heightFrom === 'normals' && input.style.given.normal !== undefined;
  const readsTone = !isGiven && !isIntegrated && chosen.heightFrom !== 'light';
  const toldMm = isIntegrated ? (decided.high - decided.low) * frame.edgeMetres * 1000 : 0;
  const isOther = isIntegrated && Math.abs(toldMm - depthMm) > DEPTH_SLACK * toldMm;
  const against = (chosen.polarity === 'bright' ? -1 : 1) * evidence.together;
  const byFoundLight = !isGiven && isLit(chosen) && chosen.lightFrom === 'found';
  const isAgainst = readsTone && against > STRONG && chosen.joints === 'none';
  const isFaceless = output.faceCount === 0;
  const state =
    flat?.state === 'look' ||
    steepShare > 2 ||
    tilt > 0.02 ||
    isAgainst ||
    isFaceless ||
    isOther ||
    offLength > LENGTH_SLACK
      ? 'look'
      : 'fine';
  return {
    state,
    brief: flat ? 'flat' : `${range.toFixed(range < 10 ? 1 : 0)} mm deep`,
    sentence: flat
      ? flat.sentence
      : `Height spans ${range.toFixed(1)} mm, ${((100 * range) / 1000 / frame.edgeMetres).toFixed(2)} % of the edge; the steepest slope is ${steepest.toFixed(0)}°.`,
    advice: adviceOf({
      flat: flat?.advice ?? null,
      isSteep: steepShare > 2,
      hasJoints: chosen.joints !== 'none',
      isFaceless,
      isGrainy: byFoundLight && light.plain > GRAINY,
    }),
    remedies: remediesOf({
      raised: isAgainst ? (evidence.together > 0 ? 'bright' : 'dark') : null,
      impliedMm: isOther ? toldMm : null,
      isUnlit: byFoundLight && light.plain < PLAIN,
    }),
    figures: [
      { id: 'range', label: 'Height, 99 % of it', value: range, unit: 'mm' },
      ...(output.faceCount === null
        ? []
        : [{ id: 'faces', label: 'Faces between joints', value: output.faceCount, unit: '' }]),
      { id: 'share', label: 'Depth as a share of the edge', value: share, unit: '', digits: 4 },
      { id: 'steepest', label: 'Steepest slope', value: steepest, unit: '°' },
      { id: 'steep', label: `Steeper than ${STEEP_DEGREES}°`, value: steepShare, unit: '%', limit: 2 },
      { id: 'tilt', label: 'Mean tilt of the normals', value: tilt, unit: '', limit: 0.02, digits: 4 },
      {
        id: 'length',
        label: 'Normals off unit length, at most',
        value: offLength,
        unit: '',
        limit: LENGTH_SLACK,
        digits: 5,
      },
      ...(isIntegrated
        ? [{ id: 'told', label: 'Depth implied by the supplied normals', value: toldMm, unit: 'mm' }]
        : []),
      ...(!readsTone
        ? []
        : [
            {
              id: 'bright',
              label: 'Bright stands out, by thin lines and shading',
              value: 50 + 50 * evidence.together,
              unit: '%',
            },
            ...(isLit(chosen)
              ? [{ id: 'light', label: 'Light from', value: lightOf(chosen, light), unit: '°' }]
              : []),
          ]),
    ],
  };
}
