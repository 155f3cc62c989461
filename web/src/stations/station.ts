import type { Setting, SettingValue, StationName } from '@zesty-tile/core';
import type { ComponentType } from 'react';
import type { Look, Size } from '../bench/floor/geometry.ts';
import type { BrushPlane } from '../bench/floor/use-brush.ts';
import type { ShownView } from '../engine/protocol.ts';
import type { ViewName } from '../engine/views.ts';

/** What lies over the Floor needs to know of it. */
export interface FloorScene {
  shown: ShownView;
  picture: HTMLCanvasElement;
  plane: BrushPlane;
  look: Look;
  /** Sides of the picture that is repeated. */
  tile: Size;
  /** Sides of the Floor. */
  stage: Size;
  repeats: number;
  halfShift: boolean;
  /** The photo is shown, and not the tile. */
  isPhoto: boolean;
  /** The picture from before the station is shown in place of its own. */
  isBefore: boolean;
  /** The Floor is moved by the pointer for as long as a key is held. */
  isPanning: boolean;
}

/** What a dial in place of the generic one is given. */
export interface StationDialProps {
  /** Key of the setting. */
  name: string;
  setting: Setting;
  value: SettingValue;
  onChange(value: SettingValue): void;
}

/** How a station is shown: everything about it that the Bench renders. */
export interface StationView {
  name: StationName;

  /** Dials in place of the generic ones, by the key of their setting. */
  dials?: Record<string, ComponentType<StationDialProps>>;
  /** Ids of groups that are not shown as dials, because the station's tools edit them. */
  toolGroups?: readonly string[];
  /** What its verdict offers beside settings, where not all is fine. */
  Remedy?: ComponentType;
  /** Shown above all dials, below the dials that are in no group, and below all of them. */
  Head?: ComponentType;
  Main?: ComponentType;
  Tools?: ComponentType;

  /** Views to choose between on the Floor, with their words there. */
  views?: Partial<Record<ViewName, string>>;
  /** Whether the choice is offered now: a hook. Always where it is left out. */
  useOffersViews?(): boolean;
  /** Further controls of the Floor. */
  Controls?: ComponentType<{ view: ViewName }>;
  /** What lies over the picture on the Floor. */
  Overlay?: ComponentType<FloorScene>;
  /** What lies over the lit view. */
  OverSill?: ComponentType;
  /** The Floor hatches values that no real surface has, and can show luminance alone. */
  showsLimits?: true;
  /** The Floor can show the tile repeated as far as it will be seen. */
  showsFar?: true;

  onEnter?(): void;
  onLeave?(): void;
  /** The tile is closed. */
  onClose?(): void;
}
