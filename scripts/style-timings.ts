import { Engine, type Recipe, type SourceRef, type StationSettings } from '@zesty-tile/core';

type Host = ConstructorParameters<typeof Engine>[0];
type Style = Partial<StationSettings['style']>;

const MOVES = 5;
const median = (values: number[]) => [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)];

/** Times of Style: a tile of 1024² painted from nothing, and moves of its dials at 512². */
export async function styleTimings(
  host: Host,
  recipe: Recipe,
  source: SourceRef,
): Promise<{ work: string; ms: number; wanted: number }[]> {
  const withStyle = (given: Recipe, style: Style): Recipe => ({
    ...given,
    stations: { ...given.stations, style: { ...given.stations.style, amount: 1, ...style } },
  });
  const shown = async (engine: Engine, given: Recipe, size: number, until: 'join' | 'style') =>
    engine.evaluate({ recipe: given, source, size, until, withoutVerdicts: true });
  const rows: { work: string; ms: number; wanted: number }[] = [];
  const whole: number[] = [];
  for (let k = 0; k < 3; k++) {
    const engine = new Engine(host, 2 ** 31);
    for (const size of [512, 1024]) await shown(engine, recipe, size, 'join');
    const start = performance.now();
    await shown(engine, withStyle(recipe, { seed: 2 + k }), 1024, 'style');
    whole.push(performance.now() - start);
  }
  rows.push({ work: 'Painted from nothing, 1024²', ms: median(whole), wanted: 2500 });
  const engine = new Engine(host, 2 ** 31);
  let known = (await shown(engine, withStyle(recipe, {}), 512, 'style')).recipe;
  const moved = async (words: string, wanted: number, style: (k: number) => Style) => {
    const times: number[] = [];
    for (let k = 1; k <= MOVES; k++) {
      const start = performance.now();
      known = (await shown(engine, withStyle(known, style(k)), 512, 'style')).recipe;
      times.push(performance.now() - start);
    }
    rows.push({ work: `${words}, 512²`, ms: median(times), wanted });
  };
  await moved('Light', 150, (k) => ({ light: 0.1 * k }));
  await moved('Amount', 150, (k) => ({ amount: 1 - 0.1 * k }));
  await moved('Depth of marks', 150, (k) => ({ depth: 0.1 * k }));
  await moved('Brush size', 600, (k) => ({ brush: 0.4 + 0.02 * k }));
  await moved('Shape', 600, (k) => ({ shape: 0.4 + 0.02 * k }));
  return rows;
}
