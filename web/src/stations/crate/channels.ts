import { type Channel, mapsOf, PROFILES, type ProfileFile } from '@zesty-tile/core';
import { VIEW_WORDS } from '../../engine/views.ts';

const CHANNELS = ['red', 'green', 'blue', 'alpha'];

const partWords = (channel: Channel): string =>
  'map' in channel ? `${VIEW_WORDS[channel.map]}${channel.turned ? ' turned over' : ''}` : `${channel.value}`;

/** Which map stands in which channel, in words. */
export function channelWords(file: ProfileFile): string {
  const { channels, occlusion } = file;
  const colour = channels.slice(0, 3);
  const parts = colour.map(partWords);
  // The planes of one map, in their order.
  const isOne =
    (parts.length === 1 || parts.length === 3) &&
    colour.every((one, k) => 'map' in one && one.plane === k && partWords(one) === parts[0]);
  const words = isOne ? [parts[0]] : parts.map((part, k) => `${part} in ${CHANNELS[k]}`);
  if (occlusion > 0 && mapsOf(file).includes('occlusion')) words[0] += ` with ${occlusion} of its occlusion`;
  if (channels[3]) words.push(`${partWords(channels[3])} in alpha`);
  return words.join(', ');
}

/** What is in a crate's file, by its ending. */
export function channelsOfFile(name: string): string {
  if (name.endsWith('.tile.json')) return 'Recipe, sizes, conventions, verdicts, hashes';
  const all = Object.values(PROFILES).flatMap(({ files }) => files);
  const ending = name
    .replace(/\.[^.]*$/, '')
    .split('_')
    .pop();
  const file = all.find((one) => one.ending === ending);
  return file ? channelWords(file) : '';
}
