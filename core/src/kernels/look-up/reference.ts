/**
 * Values looked up in tables of the same length, whose first entry is for 0 and whose last is for 1; between entries they are
 * interpolated, beyond 0..1 held. One new plane for each table.
 */
export function lookUp(values: Float32Array, tables: readonly Float32Array[]): Float32Array[] {
  const entries = tables[0].length - 1;
  const outs = tables.map(() => new Float32Array(values.length));
  for (let i = 0; i < values.length; i++) {
    const value = values[i];
    const at = (value < 0 ? 0 : Math.min(value, 1)) * entries;
    const k = at >= entries ? entries - 1 : at | 0;
    for (const [c, table] of tables.entries()) outs[c][i] = table[k] + (at - k) * (table[k + 1] - table[k]);
  }
  return outs;
}

export const reference = { lookUp };
