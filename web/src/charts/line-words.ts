import { albedoBand, type ChartLine, lineF0, luminanceOf } from '@zesty-tile/core';

const figure = (value: number) => String(Number(value.toFixed(3)));

/** A line's band, F0 and roughness in one row of figures. */
export function lineFigures(line: ChartLine): string {
  const [low, high] = albedoBand(line);
  const [rough, rougher] = line.roughness;
  const f0 = luminanceOf(...lineF0(line));
  return `Y ${figure(low)}–${figure(high)} · F0 ${figure(f0)} · rough ${figure(rough)}–${figure(rougher)}`;
}

/** Whether a line has a word that is searched for, in its name or among its synonyms. */
export const isSearched = ({ name, synonyms = '' }: ChartLine, search: string): boolean =>
  `${name} ${synonyms}`.toLowerCase().includes(search.trim().toLowerCase());
