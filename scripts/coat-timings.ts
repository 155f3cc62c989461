import {
  COAT_ALONE,
  type Coat,
  Engine,
  newCoat,
  newOutput,
  newPart,
  type Recipe,
  type SourceRef,
} from '@zesty-tile/core';

type Host = ConstructorParameters<typeof Engine>[0];

/** What the coats of a stack do, by turns: the usual kinds of masks and values. */
const KINDS: readonly [parts: object[], outputs: object[]][] = [
  [
    [newPart('range', { map: 'cavity', low: 0.5, high: 0.3 }), newPart('noise', { sizeMm: 200 })],
    [newOutput('line', { line: 'moss' }), newOutput('constant', { channel: 'height' })],
  ],
  [[newPart('range', { map: 'wear' })], [newOutput('constant', { colour: '#d0c8b8', blend: 'screen' })]],
  [
    [newPart('noise', { kind: 'cells', sizeMm: 90 })],
    [newOutput('constant', { channel: 'roughness', amount: 0.3 })],
  ],
  [
    [newPart('pattern', { across: 6, down: 12 })],
    [newOutput('constant', { colour: '#c0a080', blend: 'multiply' })],
  ],
  [[newPart('gradient')], [newOutput('ramp', { driver: 'tone', blend: 'soft-light' })]],
  [[newPart('scatter')], [newOutput('ramp', { driver: 'part', part: 1, plane: 'value' })]],
];

/** A stack of so many coats of all kinds. */
export const timedStack = (count: number): Coat[] =>
  Array.from({ length: count }, (_, k) => {
    const [parts, outputs] = KINDS[k % KINDS.length];
    return {
      ...newCoat({}),
      id: `coat-${k}`,
      name: `Coat ${k + 1}`,
      strength: 0.6,
      parts: parts as Coat['parts'],
      outputs: outputs as Coat['outputs'],
    };
  });

const withStack = (recipe: Recipe, stack: Coat[]): Recipe => ({
  ...recipe,
  stations: { ...recipe.stations, coats: { stack, groups: [] } },
});

const median = (values: number[]) => [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)];

const MOVES = 7;

/** Time of a stack of twelve coats: a dial of one of them at 512², its mask alone, and all from the start at 1024². */
export async function coatTimings(
  host: Host,
  recipe: Recipe,
  source: SourceRef,
): Promise<{ work: string; ms: number; wanted: number }[]> {
  const stack = timedStack(12);
  const engine = new Engine(host, 2 ** 31);
  const show = (given: Recipe) =>
    engine.evaluate({
      recipe: given,
      source,
      size: 512,
      until: 'coats',
      without: ['relief.occlusion'],
      withoutVerdicts: true,
    });
  let { recipe: known } = await show(withStack(recipe, stack));
  const rows: { work: string; ms: number; wanted: number }[] = [];
  const moved = async (at: number, k: number) => {
    const next = stack.map((coat, n) => (n === at ? { ...coat, strength: 0.3 + 0.01 * k } : coat));
    const start = performance.now();
    known = (await show(withStack(known, next))).recipe;
    return performance.now() - start;
  };
  for (const [at, words] of [
    [11, 'top'],
    [6, 'middle'],
    [0, 'lowest'],
  ] as const) {
    const times: number[] = [];
    for (let k = 0; k < MOVES; k++) times.push(await moved(at, k));
    rows.push({ work: `Strength of the ${words} of 12 coats, 512²`, ms: median(times), wanted: 100 });
  }
  const times: number[] = [];
  for (let k = 0; k < MOVES; k++) {
    const next = stack.map((coat, n) =>
      n === 6 ? { ...coat, parts: [newPart('noise', { sizeMm: 80 + k }) as Coat['parts'][number]] } : coat,
    );
    const start = performance.now();
    await engine.answer(
      COAT_ALONE,
      { recipe: withStack(known, next), source },
      { id: 'coat-6', what: 'mask' },
    );
    times.push(performance.now() - start);
  }
  rows.push({ work: 'A mask alone while its noise changes, 512²', ms: median(times), wanted: 60 });
  const from = async (given: Recipe) => {
    const whole = new Engine(host, 2 ** 31);
    await whole.evaluate({
      recipe: given,
      source,
      size: 1024,
      until: 'finish',
      without: ['relief.occlusion'],
      withoutVerdicts: true,
    });
    const start = performance.now();
    await whole.evaluate({
      recipe: given,
      source,
      size: 1024,
      until: 'coats',
      without: ['relief.occlusion'],
      withoutVerdicts: true,
    });
    return performance.now() - start;
  };
  const settled = (
    await new Engine(host, 2 ** 31).evaluate({
      recipe: withStack(recipe, stack),
      source,
      size: 1024,
      withoutVerdicts: true,
    })
  ).recipe;
  const whole = [];
  for (let k = 0; k < 3; k++) whole.push(await from(settled));
  rows.push({ work: '12 coats from the start, 1024²', ms: Math.min(...whole), wanted: 700 });
  return rows;
}
