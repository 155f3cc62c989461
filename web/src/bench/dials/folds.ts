import { create } from 'zustand';
import { persist } from 'zustand/middleware';

/** Which groups of dials were opened or folded by hand; kept in this browser. */
export const useFolds = create<{ open: Record<string, boolean> }>()(
  persist(() => ({ open: {} }), { name: 'zesty folds' }),
);
