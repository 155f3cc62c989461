import type { SourceRef } from '../../pixels/pixels.ts';
import { reductionFor } from '../../pixels/reduction.ts';
import type { Frame } from '../../tile/frame.ts';
import { type GivenMap, type GivenRefs, isGivenColour } from '../../tile/given.ts';
import type { PictureReader } from '../station.ts';
import type { ReadsAs } from './linearise.ts';
import type { SourceInput } from './output.ts';

/** What the decoded photo depends on: the file, and how far it is reduced. */
export const keyOfPhoto = (source: SourceRef, { photoShortEdge }: Frame): string[] => [
  source.sha256,
  String(reductionFor(source, photoShortEdge)),
];

/** Reads the photo and the maps supplied with it, reduced as far as the tile allows. */
export async function loadPhoto(
  source: SourceRef,
  { given: refs, reads, shots: more }: { given: GivenRefs; reads: ReadsAs; shots: readonly SourceRef[] },
  { photoShortEdge }: Frame,
  reader: PictureReader,
): Promise<SourceInput> {
  const given: SourceInput['given'] = {};
  for (const [map, ref] of Object.entries(refs) as [GivenMap, SourceRef][]) {
    given[map] = await reader.pixels(ref, photoShortEdge, isGivenColour(map) ? 'colour' : 'data');
  }
  const kind = reads === 'data' ? 'data' : 'colour';
  const pixels = await reader.pixels(source, photoShortEdge, kind);
  const shots: SourceInput['shots'] = [];
  for (const ref of more) shots.push(await reader.pixels(ref, photoShortEdge, kind));
  return { pixels, given, shots };
}
