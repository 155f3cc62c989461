import { SplitLine, splitLabel } from '../../split-line.tsx';
import { useSill } from '../state.ts';
import { useBesideWords } from './beside-panel.tsx';

/** What stands at the left and at the right of the Sill, and the line between where there is one. */
export function BesideLine({ isReady, problem }: { isReady: boolean; problem: string }) {
  const { beside, split, line } = useSill();
  const words = useBesideWords();
  if (!beside) return null;
  const left = problem || (isReady ? words : `${words}: computing …`);
  if (split === 'line') {
    return (
      <SplitLine
        label="Between both versions"
        at={line}
        onMove={(next) => useSill.setState({ line: next })}
        left={left}
        right="This tile"
      />
    );
  }
  return (
    <>
      <span style={{ ...splitLabel, left: 0 }}>{left}</span>
      <span style={{ ...splitLabel, left: '50%' }}>This tile</span>
    </>
  );
}
