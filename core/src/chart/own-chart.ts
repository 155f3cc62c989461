import * as v from 'valibot';
import { chartLineSchema } from './chart.ts';

/** A custom chart, as it is in a JSON file: a name and lines, each under an id of its own. */
export const ownChartSchema = v.strictObject({
  name: v.pipe(
    v.string('A chart needs a name.'),
    v.trim(),
    v.minLength(1, 'A chart needs a name.'),
    v.maxLength(120, 'A chart’s name has at most 120 characters.'),
  ),
  lines: v.pipe(
    v.array(chartLineSchema, 'A chart holds a list of lines.'),
    v.maxLength(500, 'A chart holds at most 500 lines.'),
    v.check(
      (lines) => new Set(lines.map((line) => line.id)).size === lines.length,
      'Two lines have the same id.',
    ),
  ),
});

export type OwnChart = v.InferOutput<typeof ownChartSchema>;

/** Everything wrong with a would-be chart, one plain line each, with the line it is in; empty when it is valid. */
export function chartProblems(value: unknown): string[] {
  const result = v.safeParse(ownChartSchema, value);
  if (result.success) return [];
  const lines = (value as { lines?: { name?: unknown }[] })?.lines;
  return result.issues.map((issue) => {
    const path = (issue.path ?? []).map((part) => part.key);
    const at = path[0] === 'lines' && typeof path[1] === 'number' ? path[1] : null;
    if (at === null) return issue.message;
    const name = lines?.[at]?.name;
    const who = typeof name === 'string' && name ? `“${name}”` : `Line ${at + 1}`;
    const field = path.slice(2).filter((part) => typeof part === 'string');
    return `${who}${field.length > 0 ? `, ${field.join(' ')}` : ''}: ${issue.message}`;
  });
}
