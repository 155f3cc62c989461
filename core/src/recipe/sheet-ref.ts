/** Strokes that are stored together. */
export type Sheet = unknown[];

/** What is stored in the place of a list of strokes: the hashes of its sheets, in their order. */
export interface SheetRef {
  sheets: string[];
}

export function isSheetRef(value: unknown): value is SheetRef {
  if (value === null || typeof value !== 'object' || Array.isArray(value)) return false;
  const { sheets, ...rest } = value as { sheets?: unknown };
  return (
    Array.isArray(sheets) &&
    Object.keys(rest).length === 0 &&
    sheets.every((hash) => typeof hash === 'string' && /^[0-9a-f]{32}$/.test(hash))
  );
}
