import { type MapName, PROFILES } from '@zesty-tile/core';
import { VIEW_WORDS } from '../../engine/views.ts';

const CHANNELS = ['red', 'green', 'blue'];

/** Which map stands in which channel, in words. */
export const channelWords = (maps: readonly MapName[]): string =>
  maps.length === 1
    ? VIEW_WORDS[maps[0]]
    : maps.map((map, k) => `${VIEW_WORDS[map]} in ${CHANNELS[k]}`).join(', ');

/** What is in a crate's file, by its ending. */
export function channelsOfFile(name: string): string {
  if (name.endsWith('.tile.json')) return 'Recipe, sizes, conventions, verdicts, hashes';
  const all = Object.values(PROFILES).flat();
  const ending = name
    .replace(/\.[^.]*$/, '')
    .split('_')
    .pop();
  const file = all.find((one) => one.ending === ending);
  return file ? channelWords(file.maps) : '';
}
