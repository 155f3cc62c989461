import Mustache from 'mustache';
import { Problem } from '../../problem.ts';

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
  /** What is in each channel; empty where there is none. */
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
  /** Of what is not a metal, linear. */
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
    if (kind === '>') found.push(`{{>${value}}} includes another file; partials are not supported.`);
    if (!['name', '&', '{', '#', '^'].includes(kind)) continue;
    if (value !== '.' && !known.includes(value) && !/^file\.[^.]+$/.test(value))
      found.push(`{{${value}}} is not a known field; use one of ${known.join(', ')}, and file.<ending>.`);
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

/** The deepest nesting of sections in a template. */
const MOST_LEVELS = 8;
/** The longest text that a template may give, in characters. */
const LONGEST_TEXT = 4_000_000;

function nestingProblem(tokens: Token[], level: number, inFiles: boolean): string | null {
  for (const [kind, value, , , inner] of tokens) {
    if (!inner || (kind !== '#' && kind !== '^')) continue;
    const isList = kind === '#' && value === 'files';
    if (isList && inFiles) {
      return '{{#files}} stands inside another {{#files}}, which would repeat every file for every file.';
    }
    if (level >= MOST_LEVELS) return `Sections are nested more than ${MOST_LEVELS} deep.`;
    const found = nestingProblem(inner, level + 1, inFiles || isList);
    if (found) return found;
  }
  return null;
}

/** What in the nesting of a template would make its text too long, in one sentence; null where nothing would. */
export function templateNestingProblem(text: string): string | null {
  try {
    return nestingProblem(Mustache.parse(text) as Token[], 0, false);
  } catch {
    // `templateProblems` says why it cannot be read.
    return null;
  }
}

/**
 * A template with its fields filled in, nothing escaped.
 * @throws Problem `bad_text` where the nesting of its sections or the length of the text has no bound.
 */
export function filledText(text: string, fields: TextFields): string {
  const tooMuch = (why: string) =>
    new Problem('bad_text', `The text beside the pictures: ${why}`, 'Change it at the Crate station.');
  const problem = templateNestingProblem(text);
  if (problem) throw tooMuch(problem);
  const filled = Mustache.render(text, fields, {}, { escape: String });
  if (filled.length > LONGEST_TEXT)
    throw tooMuch(`it has more than ${LONGEST_TEXT / 1e6} million characters.`);
  return filled;
}
