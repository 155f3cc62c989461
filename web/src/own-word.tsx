import Tooltip from '@mui/material/Tooltip';
import type { ReactElement } from 'react';
import { create } from 'zustand';
import { persist } from 'zustand/middleware';
import { meaningOf } from './glossary.ts';
import { GREY } from './theme.ts';

/** Our own words whose meaning was read in this browser. */
const useRead = create(
  persist<{ words: Record<string, boolean> }>(() => ({ words: {} }), { name: 'zesty words read' }),
);

export function markRead(word: string): void {
  const { words } = useRead.getState();
  if (!words[word]) useRead.setState({ words: { ...words, [word]: true } });
}

interface MeaningProps {
  word: string;
  /** Where it is said already. */
  isSaid?: boolean;
  children: ReactElement;
}

/** Shows what one of our own words means beside what carries it, on hover and in focus. */
export function Meaning({ word, isSaid = false, children }: MeaningProps) {
  return (
    <Tooltip
      describeChild
      disableInteractive
      title={isSaid ? '' : meaningOf(word)}
      enterDelay={400}
      onClose={() => markRead(word)}
    >
      {children}
    </Tooltip>
  );
}

/** One of our own words, with a dotted line below it until its meaning was read. */
export function OwnWord({ word }: { word: string }) {
  const isNew = useRead(({ words }) => !words[word]);
  return (
    <span
      data-new-word={isNew || undefined}
      style={{ borderBottom: `1px dotted ${isNew ? GREY.soft : 'transparent'}` }}
    >
      {word}
    </span>
  );
}
