import { type Channel, mapsOf, type ProfileFile } from '@zesty-tile/core';
import { VIEW_WORDS } from '../../engine/views.ts';

const CHANNELS = ['red', 'green', 'blue', 'alpha'];

const partWords = (channel: Channel): string =>
  'map' in channel ? `${VIEW_WORDS[channel.map]}${channel.turned ? ' inverted' : ''}` : `${channel.value}`;

/** Which map is in which channel, in words. */
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
