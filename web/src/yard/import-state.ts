import type { NamedSet } from '@zesty-tile/core';
import { create } from 'zustand';
import type { CrateFacts } from './sets/crate-facts.ts';

/** The project that files were dropped in; it is made at the first need. */
export type ProjectOf = () => Promise<string>;

/** A set of pictures that waits to be asked about. */
export interface WaitingSet {
  set: NamedSet<File>;
  /** What the set's crate says of it, where it came from one. */
  facts: CrateFacts | null;
  projectId: ProjectOf;
}

/** Pictures that look like shots of one surface, and wait to be asked about. */
export interface WaitingShots {
  files: File[];
  projectId: ProjectOf;
}

/** The import of dropped files. It belongs to no page: it goes on whichever page is shown. */
export interface ImportState {
  /** The file being imported, its place from 1, and how many there are; null while there is none. */
  at: {
    name: string;
    index: number;
    of: number;
    /** How far its setup is, 0…1, while it is set up. */
    setUp?: number;
  } | null;
  /** What was refused, and why. */
  problems: { name: string; words: string }[];
  sets: WaitingSet[];
  shots: WaitingShots | null;
  /** Sets that were answered since the last time none waited. */
  answered: number;
  /** Tiles made by the import that is under way, or ended last. */
  made: string[];
  /** Whether it was cancelled before its last file: then the tiles made are taken away again. */
  isCancelled: boolean;
}

export const useImport = create<ImportState>(() => ({
  at: null,
  problems: [],
  sets: [],
  shots: null,
  answered: 0,
  made: [],
  isCancelled: false,
}));
