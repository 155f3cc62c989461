import type { MessagePort } from 'node:worker_threads';
import type { PictureFacts } from '@zesty-tile/codecs';
import type {
  CrateNaming,
  LuminanceBins,
  PictureContent,
  Recipe,
  SourceRef,
  Verdict,
} from '@zesty-tile/core';
import type { CrateSet, Manifest } from '@zesty-tile/crates';
import type { CrateFileRow } from '../crates/order.ts';

/** A picture in the store: what it is, and where its file lies. */
export interface StoredSource extends SourceRef {
  path: string;
  /** Bits of a channel, where they are known. */
  bits?: number;
}

/** What a file is, before it is accepted. */
export interface FactsTask {
  kind: 'facts';
  path: string;
  /** Length of the file. */
  bytes: number;
}
export interface FactsResult {
  facts: PictureFacts;
}

/** Decodes a file that is to stand around the lit view. */
export interface SurroundingsTask {
  kind: 'surroundings';
  path: string;
}
export interface SurroundingsResult {
  format: 'hdr' | 'exr' | 'picture';
}

export interface PixelsTask {
  kind: 'pixels';
  source: StoredSource;
  shortEdge: number;
  /** How pixels are averaged: colour in linear light, or codes as they stand. */
  as: 'colour' | 'data';
}
export interface PixelsResult {
  width: number;
  height: number;
  channels: 3 | 4;
  bits: 8 | 16 | 32;
  data: Uint8Array;
}

/** What the values of a picture say it is. */
export interface ContentTask {
  kind: 'content';
  source: StoredSource;
}

export interface LookTask {
  kind: 'look';
  source: StoredSource;
  /** The maps given with it. */
  given: StoredSource[];
  recipe: Recipe;
}
export interface LookResult {
  verdicts: Record<string, Verdict>;
  /** WebP files: the albedo, a lit ball, and each map. */
  thumbnail: Uint8Array;
  ball: Uint8Array;
  maps: Record<string, Uint8Array>;
  bins: LuminanceBins;
}

/** The finished maps of a tile as pictures of their own, for another tile. */
export interface MapsTask {
  kind: 'maps';
  source: StoredSource;
  given: StoredSource[];
  recipe: Recipe;
}
export interface MapsResult {
  /** PNG files of 16 bits. */
  maps: Record<'colour' | 'roughness' | 'metallic' | 'height', Uint8Array> &
    Partial<Record<'opacity' | 'emission', Uint8Array>>;
  /** Between 0 and 1 of the height, mm. */
  depthMm: number;
}

export interface ScreenTask {
  kind: 'screen';
  source: StoredSource;
  /** Longest side in pixels. */
  edge: number;
  /** One of its channels alone, as grey. */
  channel: number | null;
}
export interface ScreenResult {
  /** WebP. */
  picture: Uint8Array;
}

export type ContentResult = { content: PictureContent };

export interface CrateTask {
  kind: 'crate';
  source: StoredSource & { file: string };
  given: StoredSource[];
  recipe: Recipe;
  naming: CrateNaming;
  /** Where it is to be placed, whole. */
  folder: string;
  /** Takes `CrateProgress`. */
  port: MessagePort;
}
export interface CrateResult {
  files: CrateFileRow[];
}

/** What went wrong in a worker, as it crosses the border between threads. */
export interface WorkerProblem {
  problem: { code: string; message: string; hint: string; field?: string };
}

/** Takes the maps out of the files of a crate. */
export interface SetTask {
  kind: 'set';
  manifest: Manifest;
  /** Where the files lie. */
  folder: string;
}
export type SetResult = CrateSet;

/** The least work: whether a thread, and the disk behind it, answer. */
export interface PingTask {
  kind: 'ping';
}

export type Task =
  | ContentTask
  | CrateTask
  | FactsTask
  | LookTask
  | MapsTask
  | PingTask
  | PixelsTask
  | ScreenTask
  | SetTask
  | SurroundingsTask;
