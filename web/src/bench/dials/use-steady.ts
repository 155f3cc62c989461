import { useCallback, useRef } from 'react';

/** One and the same function at every drawing, which does what the last one given does: so that nothing is drawn again for it. */
export function useSteady<A extends unknown[]>(latest: (...given: A) => void): (...given: A) => void {
  const held = useRef(latest);
  held.current = latest;
  return useCallback((...given: A) => held.current(...given), []);
}
