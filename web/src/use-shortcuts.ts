import { create } from 'zustand';

/** Whether the list of keys is shown. */
export const useShortcuts = create<{ open: boolean }>(() => ({ open: false }));
