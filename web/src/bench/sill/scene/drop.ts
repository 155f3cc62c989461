import { create } from 'zustand';
import type { ScenePart } from './parts.ts';

type PartAt = (clientX: number, clientY: number) => ScenePart | null;

/** Where a tile that is dragged over the terrace would be put. */
interface Dragging {
  isOver: boolean;
  /** Null where no part lies under the pointer. */
  part: ScenePart | null;
}

export const useDragging = create<Dragging>(() => ({ isOver: false, part: null }));

let asked: PartAt | null = null;

/** Which part of the terrace lies at a place of the page; null where none does. */
export const partAt: PartAt = (clientX, clientY) => asked?.(clientX, clientY) ?? null;

/** The scene that is drawn answers from now on; what is given back ends that. */
export function startDropping(answer: PartAt): () => void {
  asked = answer;
  return () => {
    if (asked === answer) asked = null;
  };
}
