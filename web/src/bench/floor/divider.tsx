import { SplitLine } from '../split-line.tsx';
import { useBefore } from './before.ts';

/** The line between before (left) and after (right). */
export function Divider({ before, after }: { before: string; after: string }) {
  const divider = useBefore((s) => s.divider);
  if (divider === null) return null;
  return (
    <SplitLine
      label="Between before and after"
      at={divider}
      onMove={(at) => useBefore.setState({ divider: at })}
      left={before}
      right={after}
    />
  );
}
