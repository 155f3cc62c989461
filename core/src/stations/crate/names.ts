/**
 * A name that is safe as the start of a file name on every system: letters and digits of any script,
 * spaces, dots inside, dash and underscore; never a path. Empty where nothing usable is left.
 */
export function safeName(name: string): string {
  return name
    .normalize('NFC')
    .replace(/[^\p{L}\p{N}\p{M} ._-]+/gu, '-')
    .replace(/^[ .-]+|[ .-]+$/g, '')
    .slice(0, 100);
}
