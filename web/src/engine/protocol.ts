import type {
  AskedCoat,
  Coat,
  CrateNaming,
  CrateSettings,
  CropOffer,
  FarLook,
  FoundNet,
  Graft,
  LuminanceBins,
  MainDirection,
  Mask,
  Reading,
  Recipe,
  RepairSpot,
  Repeat,
  Setup,
  SourceRef,
  Spot,
  StationName,
  Step,
  StyleStart,
  Verdict,
} from '@zesty-tile/core';
import type { ViewName } from './views.ts';

/** One request for pictures of a recipe. A newer one ends the older. */
export interface ShowRequest {
  recipe: Recipe;
  source: SourceRef;
  view: ViewName;
}

/** A picture for the Floor, with its values for the readout. */
export interface ShownView {
  view: ViewName;
  width: number;
  height: number;
  rgba: Uint8ClampedArray<ArrayBuffer>;
  planes: Float32Array[];
  /** How many of the recipe's repairs are in it. */
  repairs: number;
}

/** A small picture of a station for the Course. */
export interface Thumbnail {
  width: number;
  height: number;
  rgba: Uint8ClampedArray<ArrayBuffer>;
}

/** A map for the Sill. */
export interface ShownMap {
  width: number;
  height: number;
  rgba: Uint8ClampedArray<ArrayBuffer>;
}

/** Everything the Sill needs. While a dial moves, maps that it does not touch stay at their sharper size. */
export interface ShownMaps {
  albedo: ShownMap;
  normal: ShownMap;
  /** Occlusion, roughness, metallic in red, green, blue. */
  packed: ShownMap;
  opacity: ShownMap | null;
  /** Light that the surface gives off itself, sRGB encoded. */
  emission: ShownMap | null;
  /** 0..1, reduced to at most 512 px. */
  height: { width: number; height: number; values: Float32Array };
  /** F0 where it is one for the whole tile. */
  f0: [number, number, number];
  /** Where it differs from place to place: F0 as shares of the brightest, sRGB encoded. */
  specular: { map: ShownMap; brightest: number } | null;
  /** Whether all of it is metal. */
  isMetal: boolean;
  /** Depth of the relief as a share of the tile's longer edge. */
  depthShare: number;
  /** +1 where the normal's green points up in the picture, −1 where it points down. */
  green: 1 | -1;
}

/** Where some of the albedo lies beyond any real surface: each pixel's `MARK`. */
export interface Marks {
  width: number;
  height: number;
  values: Uint8Array<ArrayBuffer>;
}

/** What one pass of the engine came to. */
export interface EngineWork {
  size: number;
  /** From its first station to its last, ms. */
  ms: number;
  /** Results that were at hand, and such as were made. */
  hits: number;
  misses: number;
  /** Memory that results take, and may take. */
  bytes: number;
  limit: number;
  /** Threads that work, the engine's own among them. */
  threads: number;
  /** Planes that were asked for on the engine's own thread, and how many of them were there to be written again. */
  planes: { taken: number; reused: number };
  /** How long nothing else was let in at most: what is no longer wanted is stopped after that. */
  longest: Step;
}

export type Update =
  | { kind: 'busy'; station: StationName; done: number; size: number }
  | { kind: 'station'; station: StationName; verdict: Verdict; thumbnail: Thumbnail | null; size: number }
  | { kind: 'view'; shown: ShownView; size: number }
  /** Only what differs from the maps sent before. */
  | { kind: 'maps'; maps: Partial<ShownMaps> }
  | { kind: 'bins'; bins: LuminanceBins }
  | { kind: 'marks'; marks: Marks | null }
  | { kind: 'repeats'; repeats: Repeat[] }
  | {
      kind: 'settled';
      size: number;
      decisions: Recipe['decisions'];
      work: EngineWork;
    }
  | { kind: 'idle' }
  | { kind: 'failed'; code: string; message: string; hint: string };

/** Takes what the engine says of a request, by its number; of a picture it says when it is painted. */
export type Hear = (update: Update, request: number) => Promise<void> | undefined;

/** One way of joining as it is offered: small, and measured. */
export interface OfferedJoin {
  method: Recipe['stations']['join']['method'];
  blend: Recipe['stations']['join']['blend'];
  picture: Thumbnail;
  score: number;
  seam: number;
  blotch: number;
  detail: number;
}

/** A patch offered to lie over a place: how it would look there, and how unlike what meets at its outline is. */
export interface OfferedGraft {
  graft: Graft;
  unlike: number;
  picture: Thumbnail;
}

/** A piece of the photo offered as the tile: how it looks laid as it is, and the figures of that. */
export interface OfferedCrop extends Pick<CropOffer, 'framing' | 'periods' | 'area'> {
  picture: Thumbnail;
  seam: number;
  blotch: number;
}

/** How much of each pixel a zone covers, 0…255, and what that comes to of the tile, 0…1. */
export interface ShownCover {
  width: number;
  height: number;
  values: Uint8Array<ArrayBuffer>;
  share: number;
}

/** What is read at a place of the tile. */
export interface ReadValues {
  /** Albedo, linear. */
  rgb: [number, number, number];
  y: number;
  /** F0 as luminance, of metal and all else. */
  f0: number;
  gloss: number;
  /** The band that the place is compared with, where a line is chosen for it. */
  band: [number, number] | null;
}

/** A file of a crate as it will look. */
export interface LookedFile {
  ending: string;
  name: string;
  width: number;
  height: number;
  picture: Thumbnail;
  /** Each channel as grey. */
  channels: Thumbnail[];
}

/** What a crate will hold. */
export interface LookedCrate {
  /** The largest of each. */
  files: LookedFile[];
  /** All that is written. */
  names: string[];
  /** Of all pictures together, estimated from the tile at this many pixels. */
  bytes: number;
  measuredAt: number;
}

/** A coat's mask, or what it puts into a channel, by itself; and how much of the tile it covers, 0…1. */
export interface ShownCoat extends Thumbnail {
  cover: number;
}

/** What the worker offers to the page. */
export interface EngineWorker {
  /** All that is said of requests goes to `hear`, by one way, so that it comes in the order in which it was said: of maps and stations only what is new is sent, and none of it may be lost or overtaken. */
  listen(hear: Hear): void;
  /** Shows a recipe in place of that of the request before. */
  show(request: ShowRequest, number: number): Promise<void>;
  /** Another view of what is already computed, which is followed from now on. */
  look(view: ViewName): Promise<ShownView | null>;
  /** A view of what is already computed, once. */
  peek(view: ViewName): Promise<ShownView | null>;
  /** A view of another recipe of the same picture, once, at a size of tile. */
  other(request: ShowRequest, size: number): Promise<ShownView | null>;
  /** All maps of another recipe of the same or another picture, for the Sill. */
  mapsOf(request: Omit<ShowRequest, 'view'>, size: number): Promise<ShownMaps>;
  /** A view laid far away as a game draws it, from what is computed; null before that. */
  far(view: ViewName, look: FarLook): Promise<Thumbnail | null>;
  /** The repeat figure of a recipe at the working size. */
  repeatFigure(request: Omit<ShowRequest, 'view'>): Promise<number>;
  /** Every way of joining, each told as it is made; then which is best, by its place, and why. Null when stopped. */
  proposeJoin(
    request: Omit<ShowRequest, 'view'>,
    onOffer: (offer: OfferedJoin) => void,
  ): Promise<{ best: number; reason: string } | null>;
  stopProposing(): void;
  /** Measures a photo and proposes its settings; `onProgress` gets the share done. */
  setUp(
    request: Omit<ShowRequest, 'view'> & {
      /** Settings that stay as they are, as “station.key”. */
      chosen?: readonly string[];
    },
    onProgress: (done: number) => void,
  ): Promise<Setup>;
  /** The net of thin lines that closes faces best, and how clearly. */
  findNet(request: Omit<ShowRequest, 'view'>): Promise<FoundNet>;
  /** The main direction of lines in the photo, once it is read. */
  mainDirection(): MainDirection | null;
  /** How unlike the source the joined tile is along its seams, by what is computed; null before that. */
  seamHeat(): Promise<Spot[] | null>;
  /** Pieces of the photo that nearly tile by themselves. */
  offerCrops(request: Omit<ShowRequest, 'view'>): Promise<OfferedCrop[]>;
  /** Patches to lie over a place of the joined tile. */
  offerGrafts(request: Omit<ShowRequest, 'view'>, spot: RepairSpot): Promise<OfferedGraft[]>;
  /** A coat by itself; null where it has no effect, or puts nothing there. */
  coatAlone(request: Omit<ShowRequest, 'view'>, asked: AskedCoat): Promise<ShownCoat | null>;
  /** How the tile would look with each of these coats on top (null: with none); told one after the other, by its place. */
  offerCoats(
    request: Omit<ShowRequest, 'view'>,
    offers: readonly (Coat | null)[],
    onOffer: (place: number, picture: Thumbnail) => Promise<void> | undefined,
  ): Promise<void>;
  /** How the tile would be painted with each of these dials; told one after the other, by its place. */
  offerStyles(
    request: Omit<ShowRequest, 'view'>,
    offers: readonly StyleStart['dials'][],
    onOffer: (place: number, picture: Thumbnail) => Promise<void> | undefined,
  ): Promise<void>;
  /** Six bands of the simplified height as grey pictures, fine to broad; null where nothing is painted. */
  styleBands(): Promise<Thumbnail[] | null>;
  /** What a zone covers of the tile as it is computed; null before that. */
  cover(zone: Mask): Promise<ShownCover | null>;
  /** What stands at places of the tile; null before all maps are made. */
  readAt(readings: Reading[]): ReadValues[] | null;
  /** What a crate by these settings will hold, by what is computed; null before that, or a problem in words. */
  crateLook(chosen: CrateSettings, naming: CrateNaming): Promise<LookedCrate | { problem: string } | null>;
  /** Memory for results, in bytes. */
  keepWithin(bytes: number): void;
}
