type Loose = Record<string, unknown>;

const isObject = (value: unknown): value is Loose =>
  value !== null && typeof value === 'object' && !Array.isArray(value);

/** Version 2: the zones of Gauge become named masks at the root of the recipe, where other stations can use them too. */
export function toVersion2(recipe: Loose): Loose {
  const { stations } = recipe;
  const changed = { ...recipe, version: 2 };
  if (!isObject(stations) || !isObject(stations.gauge) || !('zones' in stations.gauge)) return changed;
  const { zones, ...gauge } = stations.gauge;
  return { ...changed, masks: zones, stations: { ...stations, gauge } };
}
