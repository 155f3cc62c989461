import { create } from 'zustand';

/** Whether a line is being drawn to level the crop by, and what was said of the last try. */
interface Level {
  drawing: boolean;
  said: string;
}

export const useLevel = create<Level>(() => ({ drawing: false, said: '' }));
