import type { CrateSettings } from '@zesty-tile/core';
import { useEffect, useState } from 'react';
import { useBench } from '../../bench/state.ts';
import { engineNow } from '../../bench/use-engine.ts';
import type { LookedCrate } from '../../engine/protocol.ts';

interface Looked {
  look: LookedCrate | null;
  problem: string;
}

/** What a crate of the current tile will hold by some settings, made again when either changes. */
export function useCrateLook(chosen: CrateSettings, tile: string, crate: number): Looked {
  const found = useBench((s) => s.found.crate);
  const maps = useBench((s) => s.maps);
  const [looked, setLooked] = useState<Looked>({ look: null, problem: '' });
  // biome-ignore lint/correctness/useExhaustiveDependencies: what was computed again is looked at again
  useEffect(() => {
    let isOver = false;
    void engineNow()
      ?.crateLook(chosen, { tile, crate })
      .then((answer) => {
        if (isOver || !answer) return;
        setLooked(
          'problem' in answer ? { look: null, problem: answer.problem } : { look: answer, problem: '' },
        );
      });
    return () => {
      isOver = true;
    };
  }, [chosen, tile, crate, found, maps]);
  return looked;
}
