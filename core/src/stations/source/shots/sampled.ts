/** Brightnesses of some pixels in every shot: those of one pixel beside each other. */
export interface Samples {
  shots: number;
  /** Linear luminance. */
  values: Float64Array;
  count: number;
}

/** A pixel whose darkest shot has less than this of its brightest lies in shadow, or nearly. */
const SHADED = 0.25;
/** Pixels darker than this tell of noise. */
const BLACK = 0.004;
/** How many pixels are looked at. */
const MOST = 4000;

/** Luminance of all shots at the same places; below 0 where a shot is clipped there, or does not show it. */
export interface Stack {
  planes: Float32Array[];
  width: number;
  height: number;
}

/** Pixels spread over the picture that every shot shows, lit in all of them where `lit` asks for it. */
export function samplesOf({ planes }: Stack, isLit: boolean): Samples {
  const shots = planes.length;
  const fit: number[] = [];
  for (let i = 0; i < planes[0].length; i++) {
    let [least, most] = [Number.POSITIVE_INFINITY, 0];
    for (const plane of planes) {
      least = Math.min(least, plane[i]);
      most = Math.max(most, plane[i]);
    }
    if (least < 0 || most < BLACK || (isLit && least < SHADED * most)) continue;
    fit.push(i);
  }
  const step = Math.max(1, fit.length / MOST);
  const count = Math.floor(fit.length / step);
  const values = new Float64Array(count * shots);
  for (let n = 0; n < count; n++) {
    const i = fit[Math.floor(n * step)];
    for (let k = 0; k < shots; k++) values[n * shots + k] = planes[k][i];
  }
  return { shots, values, count };
}
