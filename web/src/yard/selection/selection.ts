/** Which tiles of the Yard are selected together, in the order they were added, and where a range starts. */
export interface Selection {
  ids: readonly string[];
  anchor: string | null;
}

export const NOTHING_SELECTED: Selection = { ids: [], anchor: null };

/** Adds a tile, or takes it out; `open` is the tile that is chosen alone so far, which is then one of them. */
export function toggled({ ids }: Selection, id: string, open: string | null): Selection {
  const all = ids.length === 0 && open && open !== id ? [open] : ids;
  return { ids: all.includes(id) ? all.filter((one) => one !== id) : [...all, id], anchor: id };
}

/** Every tile from where a range starts to this one, in the order they are shown. */
export function ranged(
  { anchor }: Selection,
  id: string,
  open: string | null,
  shown: readonly string[],
): Selection {
  const start = shown.includes(anchor ?? '') ? anchor! : open && shown.includes(open) ? open : id;
  const [from, to] = [shown.indexOf(start), shown.indexOf(id)].sort((a, b) => a - b);
  return { ids: shown.slice(from, to + 1), anchor: start };
}

/** A selection without tiles that are not shown any more. */
export function amongShown(selection: Selection, shown: readonly string[]): Selection {
  const ids = selection.ids.filter((id) => shown.includes(id));
  return ids.length === selection.ids.length ? selection : { ...selection, ids };
}
