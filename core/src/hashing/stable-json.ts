/** The same data with the keys of its objects in order. */
function sorted(value: unknown): unknown {
  if (value === null || typeof value !== 'object') return value;
  if (Array.isArray(value)) return value.every(Number.isFinite) ? value : value.map(sorted);
  return Object.fromEntries(
    Object.entries(value)
      .sort(([a], [b]) => (a < b ? -1 : 1))
      .map(([key, one]) => [key, sorted(one)]),
  );
}

/** JSON with sorted keys, so that equal data gives equal text. */
export const stableJson = (value: unknown): string => JSON.stringify(sorted(value));
