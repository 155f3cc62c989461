import { create } from 'zustand';

/** Whether help is shown: the keys, and our own words. */
export const useHelp = create<{ open: boolean }>(() => ({ open: false }));
