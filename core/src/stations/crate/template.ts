import Mustache from 'mustache';

/** One picture, as a template speaks of it. */
export interface TextFile {
  name: string;
  map: string;
  size: number;
  width: number;
  height: number;
  format: string;
  bits: number;
  colour: boolean;
  data: boolean;
  /** What stands in each channel; empty where there is none. */
  red: string;
  green: string;
  blue: string;
  alpha: string;
}

/** What a template may speak of. */
export interface TextFields {
  tile: string;
  crate: number;
  profile: string;
  size: number;
  width: number;
  height: number;
  edgeMetres: number;
  depthMm: number;
  /** Depth of the height map as a share of the edge. */
  depthShare: number;
  /** +1 where green points up in the picture, −1 where down. */
  normalY: 1 | -1;
  /** Means over the tile. */
  roughness: number;
  metallic: number;
  /** Of what is no metal, linear. */
  f0: number;
  files: TextFile[];
  /** Names of the largest files by their ending. */
  file: Record<string, string>;
}

const FILE_FIELDS = [
  'name',
  'map',
  'size',
  'width',
  'height',
  'format',
  'bits',
  'colour',
  'data',
  'red',
  'green',
  'blue',
  'alpha',
] as const satisfies readonly (keyof TextFile)[];

/** Fields of a template, for who writes one. */
export const TEXT_FIELDS = [
  'tile',
  'crate',
  'profile',
  'size',
  'width',
  'height',
  'edgeMetres',
  'depthMm',
  'depthShare',
  'normalY',
  'roughness',
  'metallic',
  'f0',
  'files',
] as const satisfies readonly (keyof TextFields)[];

type Token = [kind: string, value: string, start: number, end: number, inner?: Token[]];

function unknownIn(tokens: Token[], known: readonly string[], found: string[]): void {
  for (const [kind, value, , , inner] of tokens) {
    if (kind === '>') found.push(`{{>${value}}} takes in another file, which is not done here.`);
    if (!['name', '&', '{', '#', '^'].includes(kind)) continue;
    if (value !== '.' && !known.includes(value) && !/^file\.[^.]+$/.test(value))
      found.push(`{{${value}}} is no field; there are ${known.join(', ')}, and file.<ending>.`);
    if (!inner) continue;
    unknownIn(inner, value === 'files' ? [...known, ...FILE_FIELDS] : known, found);
  }
}

/** What is wrong with a template, one sentence each; empty where nothing is. */
export function templateProblems(text: string): string[] {
  try {
    const found: string[] = [];
    unknownIn(Mustache.parse(text) as Token[], TEXT_FIELDS, found);
    return found;
  } catch (error) {
    return [`The template cannot be read: ${error instanceof Error ? error.message : String(error)}.`];
  }
}

/** A template with its fields filled in, nothing escaped. */
export const filledText = (text: string, fields: TextFields): string =>
  Mustache.render(text, fields, {}, { escape: String });
