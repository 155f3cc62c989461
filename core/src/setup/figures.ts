import type { Verdict } from '../verdict.ts';

/** A figure of a verdict that always has it. */
export function figureOf(verdict: Verdict | undefined, id: string): number {
  const figure = verdict?.figures.find((one) => one.id === id);
  if (!figure) throw new Error(`The verdict has no figure “${id}”.`);
  return figure.value;
}
