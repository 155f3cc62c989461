import { useEffect, useRef } from 'react';

/** Takes pictures in that are pasted from the clipboard, unless text is being written. */
export function usePasted(take: (files: File[]) => void): void {
  const latest = useRef(take);
  latest.current = take;
  useEffect(() => {
    const paste = (event: ClipboardEvent) => {
      const files = [...(event.clipboardData?.files ?? [])];
      const target = event.target as HTMLElement | null;
      if (files.length === 0 || target?.closest('input, textarea')) return;
      event.preventDefault();
      latest.current(files);
    };
    document.addEventListener('paste', paste);
    return () => document.removeEventListener('paste', paste);
  }, []);
}
