import type { CrateSettings } from '@zesty-tile/core';
import { useEffect, useState } from 'react';
import { useBench } from '../../bench/state.ts';
import { engineNow } from '../../bench/use-engine.ts';
import type { LookedCrate } from '../../engine/protocol.ts';

interface Looked {
  look: LookedCrate | null;
  problem: string;
  /** Something changed since, and is being looked at again. */
  isBusy: boolean;
}

/** What a crate of the current tile will hold by some settings, made again when either changes. */
export function useCrateLook(chosen: CrateSettings, tile: string, crate: number): Looked {
  const found = useBench((s) => s.found.crate);
  const maps = useBench((s) => s.maps);
  const [looked, setLooked] = useState<Omit<Looked, 'isBusy'>>({ look: null, problem: '' });
  const [isBusy, setBusy] = useState(true);
  // biome-ignore lint/correctness/useExhaustiveDependencies: what was computed again is looked at again
  useEffect(() => {
    let isOver = false;
    setBusy(true);
    void engineNow()
      ?.crateLook(chosen, { tile, crate })
      .then((answer) => {
        if (isOver) return;
        // Nothing is at hand while the tile is computed: it is asked again once it is.
        if (!answer) return;
        setBusy(false);
        setLooked(
          'problem' in answer ? { look: null, problem: answer.problem } : { look: answer, problem: '' },
        );
      });
    return () => {
      isOver = true;
    };
  }, [chosen, tile, crate, found, maps]);
  return { ...looked, isBusy };
}
