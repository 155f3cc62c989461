/** Bytes of a tile's name within a file's: with all that comes after it, it stays under what any system takes. */
const MOST_BYTES = 120;

/** Names that some systems keep for themselves, with any ending. */
const KEPT = /^(con|prn|aux|nul|com[0-9]|lpt[0-9])(?=\.|$)/i;

/** The longest start of a text within this many bytes of UTF-8, no character cut. */
function within(text: string, most: number): string {
  const encoder = new TextEncoder();
  let out = '';
  let bytes = 0;
  for (const { segment } of new Intl.Segmenter().segment(text)) {
    bytes += encoder.encode(segment).length;
    if (bytes > most) break;
    out += segment;
  }
  return out;
}

/**
 * A name that is safe as the start of a file name on every system: letters and digits of any script,
 * spaces, dots inside, dash and underscore; never a path, never a name that a system keeps for itself. Empty where
 * nothing usable is left.
 */
export function safeName(name: string): string {
  const safe = name
    .normalize('NFC')
    .replace(/[^\p{L}\p{N}\p{M} ._-]+/gu, '-')
    .replace(/^[ .-]+/g, '');
  return within(safe.replace(KEPT, '$1_'), MOST_BYTES).replace(/[ .-]+$/g, '');
}

/** What a pattern of file names may hold. */
export const NAME_FIELDS = ['tile', 'map', 'size', 'crate'] as const;
export type NameField = (typeof NAME_FIELDS)[number];

export const USUAL_PATTERN = '{tile}_{map}';

const FIELD = /\{([^{}]*)\}/g;

/** Whether a pattern holds a field. */
export const hasField = (pattern: string, field: NameField): boolean => pattern.includes(`{${field}}`);

/** What is wrong with a pattern of file names, one sentence each. */
export function patternProblems(pattern: string): string[] {
  const found: string[] = [];
  const fields = NAME_FIELDS.map((field) => `{${field}}`).join(', ');
  for (const [whole, field] of pattern.matchAll(FIELD))
    if (!(NAME_FIELDS as readonly string[]).includes(field))
      found.push(`${whole} is not a known field; use one of ${fields}.`);
  const rest = pattern.replace(FIELD, '');
  if (/[{}]/.test(rest)) found.push('A brace in it is not closed.');
  const odd = rest.match(/[^\p{L}\p{N}\p{M} ._{}-]/u);
  if (odd) found.push(`“${odd[0]}” is not allowed in file names on every system.`);
  if (/^[ .-]/.test(pattern)) found.push('It may not begin with a space, a dot or a dash.');
  if (!hasField(pattern, 'map')) found.push('Without {map} all files of a crate would have one name.');
  if (pattern.length > 80) found.push('It has more than 80 characters.');
  return found;
}

/** A file name of a pattern, without its extension. */
export const patternName = (pattern: string, values: Record<NameField, string | number>): string =>
  pattern.replace(FIELD, (_, field: NameField) => String(values[field])).replace(/[ .-]+$/g, '');

/** Suffix of the file that describes a crate. */
export const MANIFEST_SUFFIX = 'tile.json';

/** The most bytes of a file name, on the systems that allow the fewest. */
export const MOST_NAME_BYTES = 255;

/** What is wrong with the suffix of a text beside the manifest, in one sentence; null where nothing is. */
export const suffixProblem = (suffix: string): string | null =>
  `.${suffix.toLowerCase()}`.endsWith(`.${MANIFEST_SUFFIX}`)
    ? `“.${MANIFEST_SUFFIX}” is kept for the manifest of the crate.`
    : null;
