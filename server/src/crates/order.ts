import type { Recipe, SourceRef, StationName } from '@zesty-tile/core';
import type { FileProgress } from '@zesty-tile/crates';

/** Everything one needs to make a crate, on any machine that sees the shared folder. JSON. */
export interface CrateOrder {
  id: string;
  /** Start of the file names, and the crate's number. */
  tile: string;
  crate: number;
  source: SourceRef & { file: string };
  /** Maps and pictures that the recipe gives. */
  given: SourceRef[];
  recipe: Recipe;
}

/** How far a crate is. */
export interface CrateProgress {
  station: StationName | 'writing';
  done: number;
  /** While files are written: which one, and how far it is. */
  file: FileProgress | null;
}

/** A file of a crate as it lies in its folder. */
export interface CrateFileRow {
  name: string;
  bytes: number;
  sha256: string;
}

/** How a crate ended. */
export type CrateEnd =
  | { state: 'done'; files: CrateFileRow[] }
  | { state: 'failed'; message: string }
  | { state: 'stopped' };
