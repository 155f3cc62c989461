import { defaultsOf, newItem, type Raster } from '@zesty-tile/core';
import type { Part } from '../../../src/stations/coats/mask/parts.ts';
import type { CoatsInput } from '../../../src/stations/coats/scene.ts';
import {
  COAT_OUTPUTS,
  COAT_SETTINGS,
  type Coat,
  type CoatOutput,
} from '../../../src/stations/coats/settings.ts';
import type { Frame } from '../../../src/tile/frame.ts';
import { runStation, unpainted } from '../run.ts';

/** What Coats reads, of a tile with relief. */
export async function coatsInput(picture: Raster, frame: Frame): Promise<CoatsInput> {
  const join = unpainted(picture);
  const { output: relief } = await runStation('relief', { style: join }, { depthMm: 10 }, frame);
  const { output: finish } = await runStation('finish', { style: join, relief }, {}, frame);
  return { style: join, gauge: { albedo: picture }, relief, finish } as unknown as CoatsInput;
}

let count = 0;

/** A coat from the parts of its settings that matter. */
export const coat = (
  outputs: Partial<CoatOutput>[],
  parts: Partial<Part>[] = [],
  changes: Partial<Coat> = {},
): Coat => ({
  ...(defaultsOf(COAT_SETTINGS) as Coat),
  id: `coat-${count++}`,
  ...changes,
  parts: parts.map((part) => ({ ...newItem(COAT_SETTINGS.parts, part.by), ...part }) as Part),
  outputs: outputs.map((one) => ({ ...newItem(COAT_OUTPUTS, one.by ?? 'constant'), ...one }) as CoatOutput),
});
