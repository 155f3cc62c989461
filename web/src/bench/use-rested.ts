import { useEffect, useState } from 'react';

/** Whether a value has not changed for so many ms: work beside that of the moving dial waits for it. */
export function useRested(value: unknown, ms: number): boolean {
  const [rested, setRested] = useState<unknown>(undefined);
  useEffect(() => {
    const timer = setTimeout(() => setRested(value), ms);
    return () => clearTimeout(timer);
  }, [value, ms]);
  return rested === value;
}
