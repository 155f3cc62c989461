import { type ChartLine, chartProblems, type OwnChart } from '@zesty-tile/core';

/** What a chart's JSON file holds. */
export const chartText = ({ name, lines }: OwnChart): string =>
  `${JSON.stringify({ name, lines }, null, 2)}\n`;

/** Reads a chart's JSON: `{ name, lines: [{ id, name, group, kind, reflectance, f0, roughness }] }`. @throws Error in plain words. */
export function readChart(text: string): OwnChart {
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch {
    throw new Error('The file is not JSON. Use one that was exported here.');
  }
  // A whole chart as it ships with the program has limits and words of its own; its lines are what is taken.
  const { name, lines } = (value ?? {}) as { name?: unknown; lines?: unknown };
  const chart = { name: typeof name === 'string' ? name : 'Imported chart', lines };
  const problems = chartProblems(chart);
  if (problems.length > 0) throw new Error(`The chart cannot be used. ${problems.slice(0, 3).join(' ')}`);
  return chart as OwnChart;
}

/** A line to begin with, under an id that is not taken. */
export function freshLine(lines: readonly ChartLine[]): ChartLine {
  let k = lines.length + 1;
  while (lines.some(({ id }) => id === `line-${k}`)) k++;
  return {
    id: `line-${k}`,
    name: `Line ${k}`,
    group: 'own',
    kind: 'dielectric',
    reflectance: [0.2, 0.3],
    f0: 0.04,
    roughness: [0.6, 0.9],
  };
}
