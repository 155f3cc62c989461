import { decodePicture } from '@zesty-tile/codecs';
import {
  CHART,
  drift,
  findRepeats,
  histogramPercentiles,
  linearise,
  luminance,
  pictureSeams,
  runToEnd,
  TORUS,
} from '@zesty-tile/core';
import { readInput } from './read.ts';

/** Pictures that tile reach this where their edge happens to lie on a steep place. */
const TILES_BELOW = 1.05;

/** `zesty check`: figures of a picture taken as a tile. */
export async function check(path: string, options: { json: boolean }): Promise<void> {
  const pixels = await decodePicture(await readInput(path));
  const { picture } = linearise({ pixels, given: {} }, { reads: 'file', givenGreen: 'up' });
  const { width, height } = picture;
  const y = luminance(picture);
  const seams = pictureSeams(picture);
  const [low, median, high] = histogramPercentiles(y, [2, 50, 98]);
  const { dielectricFloor, dielectricCeiling } = CHART.limits;
  const beyond = y.reduce((n, v) => n + Number(v < dielectricFloor || v > dielectricCeiling), 0) / y.length;
  const powerOfTwo = (n: number) => (n & (n - 1)) === 0;
  const report = {
    width,
    height,
    powerOfTwo: powerOfTwo(width) && powerOfTwo(height),
    seamX: seams.seamX,
    seamY: seams.seamY,
    blotchX: seams.blotchX,
    blotchY: seams.blotchY,
    tiles: Math.max(seams.seamX, seams.seamY, seams.blotchX, seams.blotchY) <= TILES_BELOW,
    drift: runToEnd(drift(y, width, height)).rms,
    repeats: await findRepeats(picture, TORUS),
    albedo: { p2: low, median, p98: high, beyondDielectric: beyond },
  };
  if (options.json) {
    process.stdout.write(`${JSON.stringify(report, null, 2)}\n`);
    return;
  }
  const f = (v: number) => v.toFixed(3);
  const percent = (v: number) => `${Math.round(100 * v)} %`;
  process.stdout.write(
    [
      `size     ${width} × ${height}${report.powerOfTwo ? ', powers of two' : ', not powers of two'}`,
      `seam     ${f(seams.seamX)} left to right, ${f(seams.seamY)} top to bottom (1 or less is hidden)`,
      `blotch   ${f(seams.blotchX)} left to right, ${f(seams.blotchY)} top to bottom`,
      `tiles    ${report.tiles ? 'yes' : 'no'}`,
      `drift    ${(100 * report.drift).toFixed(1)} %`,
      `repeats  ${report.repeats.length === 0 ? 'nothing stands out' : `${report.repeats.length} stand out, the strongest at ${percent(report.repeats[0].x)} across, ${percent(report.repeats[0].y)} down`}`,
      `albedo   median Y ${f(median)}, 2 % ${f(low)}, 98 % ${f(high)}; ${(100 * beyond).toFixed(2)} % beyond any dielectric`,
      '',
    ].join('\n'),
  );
}
