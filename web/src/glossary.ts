/** Words of our own and what they mean, for those who use the program; the glossary of the docs has the others too. */
export const WORDS: readonly [word: string, means: string][] = [
  ['Tile', 'a picture that repeats without a seam, with its maps; also the work on one'],
  ['Yard', 'the page of all tiles'],
  ['Bench', 'the page of one tile'],
  ['Course', 'the row of stations at the foot of the Bench'],
  ['Station', 'one step of the work: settings, a picture and a verdict'],
  ['Floor', 'the flat view: the tile repeated, or the photo'],
  ['Sill', 'the lit view: all maps together'],
  ['Dials', 'the settings of the open station'],
  ['Verdict', 'what a station measured about its own result, and what to do'],
  ['Source', 'the photo, what it offers, and maps supplied with it'],
  ['Square', 'crop, level and straighten the photo'],
  ['Even', 'remove the photo’s uneven light'],
  ['Join', 'make opposite edges meet'],
  ['Style', 'repaint the tile as a texture painter would, as far as wanted'],
  ['Gauge', 'calibrate the albedo against real surfaces'],
  ['Relief', 'height, normal, occlusion and cavity'],
  ['Finish', 'roughness, specular and metallic'],
  ['Coats', 'layers over the tile: each a mask, and what it puts into each map'],
  ['Proof', 'the tile as the game shows it, and what will be seen repeating'],
  ['Crate', 'the finished files, with a manifest'],
  ['Zone', 'a named part of a tile with values of its own'],
  ['Chart line', 'a real surface with its reflectance, F0 and roughness'],
  ['Recipe', 'all settings of a tile, to be kept and applied to others'],
  ['Proposal', 'a setting that the setup of a photo applied, with its reason'],
];

/** What one of them means, also where several are meant. */
export function meaningOf(word: string): string {
  const [one, means] = WORDS.find(([one]) => word === one || word === `${one}s`)!;
  return `${one}: ${means}`;
}
