import type { Recipe } from '@zesty-tile/core';
import { useEffect } from 'react';
import { create } from 'zustand';
import type { ShownView } from '../../engine/protocol.ts';
import { viewBefore } from '../../engine/views.ts';
import { useBench, viewInForce } from '../state.ts';
import { engineNow } from '../use-engine.ts';

/** Another version that the Floor holds the present against. */
export interface Compared {
  number: number;
  recipe: Recipe;
}

interface BeforeState {
  /** Where the divider stands across the stage, 0…1, or null while it is away. */
  divider: number | null;
  /** The key for before is held. */
  held: boolean;
  compared: Compared | null;
  picture: ShownView | null;
}

export const useBefore = create<BeforeState>(() => ({
  divider: null,
  held: false,
  compared: null,
  picture: null,
}));

/** Whether there is something to compare what is shown with. */
export const canCompare = (): boolean =>
  useBefore.getState().compared !== null || viewBefore(viewInForce(useBench.getState())) !== null;

/** Fetches the picture before, whenever it is looked at and what is shown has changed. */
export function useBeforePicture(): void {
  const shown = useBench((s) => s.shown);
  const source = useBench((s) => s.source);
  const wanted = useBefore((s) => s.divider !== null || s.held);
  const compared = useBefore((s) => s.compared);
  useEffect(() => {
    if (!wanted || !shown) return;
    let late = false;
    const ask = async () => {
      const engine = engineNow();
      if (!engine) return null;
      if (compared) return engine.other({ recipe: compared.recipe, source, view: shown.view }, shown.width);
      const view = viewBefore(shown.view);
      return view === null ? null : engine.peek(view);
    };
    void ask().then((picture) => {
      if (!late) useBefore.setState({ picture });
    });
    return () => {
      late = true;
    };
  }, [wanted, shown, source, compared]);
}
