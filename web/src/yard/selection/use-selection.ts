import { type MouseEvent, useEffect, useState } from 'react';
import type { YardTile } from '../queries.ts';
import { amongShown, NOTHING_SELECTED, ranged, toggled } from './selection.ts';

const isTyping = (target: EventTarget | null) =>
  target instanceof HTMLElement &&
  target.closest('input, textarea, [contenteditable], [role="dialog"]') !== null;

/** Several tiles selected together: by Ctrl or ⌘ and Shift with a click, by a box, by Ctrl or ⌘ with A. */
export function useSelection(shown: readonly YardTile[], open: string | null) {
  const [kept, setSelection] = useState(NOTHING_SELECTED);
  const ids = shown.map(({ id }) => id);
  const selection = amongShown(kept, ids);
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (isTyping(event.target)) return;
      if (event.key === 'Escape') setSelection(NOTHING_SELECTED);
      if (!(event.ctrlKey || event.metaKey) || event.key.toLowerCase() !== 'a') return;
      event.preventDefault();
      setSelection({ ids: shown.map(({ id }) => id), anchor: shown[0]?.id ?? null });
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, [shown]);
  return {
    ids: new Set(selection.ids),
    tiles: shown.filter(({ id }) => selection.ids.includes(id)),
    clear: () => setSelection(NOTHING_SELECTED),
    /** Selects by a click with a key held; says whether it did. */
    select(id: string, { ctrlKey, metaKey, shiftKey }: Pick<MouseEvent, 'ctrlKey' | 'metaKey' | 'shiftKey'>) {
      if (shiftKey) setSelection(ranged(selection, id, open, ids));
      else if (ctrlKey || metaKey) setSelection(toggled(selection, id, open));
      else return false;
      return true;
    },
    /** Selects what a box touches. */
    box: (touched: readonly string[]) => setSelection({ ids: touched, anchor: touched[0] ?? null }),
  };
}
