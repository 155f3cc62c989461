import { albedoBand, lineOf } from '../chart/chart.ts';
import type { StationName, StationSettings } from '../stations/index.ts';
import { PLAIN } from '../stations/proof/repeats.ts';
import type { Figure, Verdict, VerdictState } from '../verdict.ts';

/** One thing that a tile is compared with before it is exported. */
export interface Check {
  id: string;
  label: string;
  state: VerdictState;
  /** What was measured, and what it is compared with; empty where there is nothing to hold it against. */
  figure: string;
  limit: string;
  sentence: string;
  /** Where it is mended. */
  station: StationName;
}

type Verdicts = Partial<Record<StationName, Verdict>>;

interface Asked {
  verdicts: Verdicts;
  stations: StationSettings;
  /** Texel density that the project wants, px per metre; null where none is. */
  density: number | null;
}

/** A density that is off by more than this factor is worth a look. */
const DENSITY_SLACK = 1.5;
/** So much of a normal map may tell of another surface than the height, in percent. */
const APART_LIMIT = 25;
/** Depths may differ by so much of the larger. */
const DEPTH_SLACK = 0.1;
const SEAM_LIMIT = 1.3;

const shown = (value: number, digits = 2) => value.toFixed(digits).replace('-', '−');
const stateOf = (isFine: boolean): VerdictState => (isFine ? 'fine' : 'look');

/** A figure of a station's verdict; null while that is not measured. */
const figureOf = (verdict: Verdict | undefined, id: string): Figure | null =>
  verdict?.figures.find((one) => one.id === id) ?? null;

const valueIn = (verdict: Verdict | undefined, id: string): number | null =>
  figureOf(verdict, id)?.value ?? null;

type Maker = (asked: Asked) => Omit<Check, 'id'> | null;

/** In the order of the list; each gives null while what it needs is not measured. */
const CHECKS: Record<string, Maker> = {
  size({ verdicts: { square }, stations }) {
    if (!square) return null;
    const { size, edgeMetres, shape } = stations.square;
    return {
      label: 'Size',
      state: square.state,
      figure: `${size} px`,
      limit: 'a power of two',
      sentence: `${shape}, ${edgeMetres} m along the edge. ${square.sentence}`,
      station: 'square',
    };
  },
  seam({ verdicts: { crate } }) {
    if (!crate) return null;
    const seams = crate.figures.filter(({ label }) => label.startsWith('Seam of '));
    const worst = seams.reduce((most, { value }) => Math.max(most, value), 0);
    return {
      label: 'Seam of each map',
      state: stateOf(worst <= SEAM_LIMIT),
      figure: shown(worst),
      limit: `≤ ${SEAM_LIMIT}`,
      sentence:
        seams.length === 0
          ? 'Every map holds one value, so no seam is possible.'
          : seams.map(({ id, value }) => `${id} ${shown(value)}`).join(', '),
      station: 'join',
    };
  },
  blotch({ verdicts: { join } }) {
    const found = [valueIn(join, 'blotchX'), valueIn(join, 'blotchY')].filter((value) => value !== null);
    if (found.length === 0) return null;
    const worst = Math.max(...found);
    return {
      label: 'Blotch',
      state: stateOf(worst <= 1),
      figure: shown(worst),
      limit: '≤ 1',
      sentence: 'Edge step of the downscaled tile relative to steps inside it.',
      station: 'join',
    };
  },
  drift({ verdicts: { even } }) {
    const after = figureOf(even, 'after');
    if (!after || !even) return null;
    return {
      label: 'Drift of light',
      state: even.state,
      figure: `${shown(after.value, 1)} %`,
      limit: `≤ ${shown(after.limit ?? 0, 1)} %`,
      sentence: even.sentence,
      station: 'even',
    };
  },
  band({ verdicts: { gauge }, stations }) {
    const median = valueIn(gauge, 'median');
    if (median === null || !gauge) return null;
    const line = lineOf(stations.gauge);
    const [low, high] = line ? albedoBand(line) : [0, 1];
    const inBand = valueIn(gauge, 'inBand');
    const isIn = line !== null && median >= low * 0.999 && median <= high * 1.001;
    return {
      label: 'Albedo in its band',
      state: line ? (isIn ? 'fine' : 'wrong') : gauge.state,
      figure: shown(median, 3),
      limit: line ? `${shown(low)}–${shown(high)}` : 'no line',
      sentence: line
        ? `Median Y against ${line.name}; ${shown(inBand ?? 0, 0)} % of the tile lies inside.`
        : 'No line of the chart is chosen to hold it against.',
      station: 'gauge',
    };
  },
  limits({ verdicts: { gauge } }) {
    const beyond = figureOf(gauge, 'beyond');
    if (!beyond) return null;
    return {
      label: 'Limits of real surfaces',
      state: stateOf(beyond.value <= 1),
      figure: `${shown(beyond.value, 2)} %`,
      limit: '≤ 1 %',
      sentence: `Share of the albedo that is ${beyond.label[0].toLowerCase()}${beyond.label.slice(1)}.`,
      station: 'gauge',
    };
  },
  normal({ verdicts: { relief } }) {
    const length = figureOf(relief, 'length');
    const tilt = figureOf(relief, 'tilt');
    if (!length || !tilt) return null;
    return {
      label: 'Normals’ length and tilt',
      state: stateOf(length.value <= (length.limit ?? 0) && tilt.value <= (tilt.limit ?? 0)),
      figure: `${shown(length.value, 5)}, ${shown(tilt.value, 4)}`,
      limit: `≤ ${length.limit}, ≤ ${tilt.limit}`,
      sentence: 'How far any normal is off unit length, and the mean tilt.',
      station: 'relief',
    };
  },
  green({ verdicts: { relief }, stations }) {
    if (!relief) return null;
    const isUp = stations.relief.normalY === 'up';
    return {
      label: '±Y stated',
      state: 'fine',
      figure: isUp ? '+Y' : '−Y',
      limit: 'stated',
      sentence: `Green points ${isUp ? 'up' : 'down'} in the picture; the crate’s manifest says so.`,
      station: 'relief',
    };
  },
  slope({ verdicts: { relief } }) {
    const steep = figureOf(relief, 'steep');
    const steepest = figureOf(relief, 'steepest');
    if (!steep || !steepest) return null;
    return {
      label: 'Slope',
      state: stateOf(steep.value <= (steep.limit ?? 0)),
      figure: `${shown(steepest.value, 0)}°`,
      limit: `≤ ${steep.limit} % above 60°`,
      sentence: `The steepest; ${shown(steep.value, 2)} % of the tile is steeper than 60°.`,
      station: 'relief',
    };
  },
  roughness({ verdicts: { finish }, stations }) {
    const middle = valueIn(finish, 'middle');
    if (middle === null) return null;
    const line = lineOf(stations.finish);
    const [low, high] = line?.roughness ?? [0, 1];
    return {
      label: 'Roughness in its band',
      state: line ? stateOf(middle >= low - 0.005 && middle <= high + 0.005) : 'look',
      figure: shown(middle),
      limit: line ? `${shown(low)}–${shown(high)}` : 'no line',
      sentence: line
        ? `Median against ${line.name}; 96 % lies from ${shown(valueIn(finish, 'low') ?? 0)} to ${shown(valueIn(finish, 'high') ?? 0)}.`
        : 'No line of the chart is chosen to hold it against.',
      station: 'finish',
    };
  },
  repeat({ verdicts: { proof } }) {
    const figure = valueIn(proof, 'repeat');
    if (figure === null || !proof) return null;
    const strongest = valueIn(proof, 'strongest') ?? 0;
    return {
      label: 'Seen repeating',
      state: stateOf(strongest < PLAIN),
      figure: shown(figure, 1),
      limit: `strongest < ${PLAIN}`,
      sentence:
        strongest === 0
          ? 'Nothing stands out from afar.'
          : `The strongest spot is ${shown(strongest, 1)} times the usual.`,
      station: 'proof',
    };
  },
  density({ verdicts: { square }, stations, density }) {
    if (!square) return null;
    const has = stations.square.size / stations.square.edgeMetres;
    const isOff = density !== null && (has > density * DENSITY_SLACK || has < density / DENSITY_SLACK);
    return {
      label: 'Texel density',
      state: stateOf(!isOff),
      figure: `${shown(has, 0)} px/m`,
      limit: density === null ? 'none wanted' : `${density} px/m`,
      sentence:
        density === null
          ? 'This project has no target texel density; set one in the Yard.'
          : isOff
            ? 'Another size or edge would come nearer.'
            : 'Near enough to what the project wants.',
      station: 'square',
    };
  },
  agree({ verdicts: { proof }, stations }) {
    const apart = valueIn(proof, 'apart');
    const told = valueIn(proof, 'told');
    if (apart === null || told === null) return null;
    // Verdicts of earlier versions do not say how deep the tile is.
    const depthMm = valueIn(proof, 'deep') ?? stations.relief.depthMm;
    const isFlat = told === 0 && apart === 0;
    const isDeep = isFlat || Math.abs(told - depthMm) <= DEPTH_SLACK * Math.max(told, depthMm);
    return {
      label: 'Maps agree',
      state: stateOf(apart <= APART_LIMIT && isDeep),
      figure: `${shown(apart, 1)} %`,
      limit: `≤ ${APART_LIMIT} %`,
      sentence: isFlat
        ? 'Both are flat.'
        : `The height map explains all but ${shown(apart, 1)} % of the 8-bit normals; their depth comes to ${shown(told, 1)} mm of ${shown(depthMm, 1)}.`,
      station: 'relief',
    };
  },
  opacity({ verdicts: { proof } }) {
    const holes = valueIn(proof, 'holes');
    const between = valueIn(proof, 'between');
    if (!proof) return null;
    return {
      label: 'Opacity',
      state: 'fine',
      figure: holes === null ? 'opaque' : `${shown(holes, 1)} % open`,
      limit: '',
      sentence:
        holes === null
          ? 'The tile has no holes.'
          : `${shown(between ?? 0, 1)} % is partly transparent: ${(between ?? 0) > 10 ? 'meant to be seen through' : 'cuts out cleanly'}.`,
      station: 'source',
    };
  },
};

/** Everything a tile is compared with, as far as it is measured, by the figures of its stations' verdicts. */
export const checksOf = (asked: Asked): Check[] =>
  Object.entries(CHECKS).flatMap(([id, make]) => {
    const made = make(asked);
    return made ? [{ id, ...made }] : [];
  });
