import type { PaintStroke } from '../../paint/stroke.ts';
import type { SurfaceChannel } from '../../surface/surface.ts';
import type { WorkContext } from '../../team/context.ts';
import type { Frame } from '../../tile/frame.ts';
import type { FinishOutput } from '../finish/output.ts';
import type { GaugeOutput } from '../gauge/output.ts';
import type { ReliefOutput } from '../relief/output.ts';
import type { StyleOutput } from '../style/output.ts';
import type { Layers } from './layers.ts';
import type { Shape } from './shaping.ts';

/** What Coats reads. */
export interface CoatsInput {
  style: StyleOutput;
  gauge: GaugeOutput;
  relief: ReliefOutput;
  finish: FinishOutput;
}

/** What a part of a mask and a value are made from: everything below a coat. */
export interface Scene {
  input: CoatsInput;
  below: Layers;
  frame: Frame;
  context: WorkContext;
  /** Whether one of the layers below stays as it is, so that what is made from it can be kept. */
  isLasting(name: keyof Layers): boolean;
  /** What follows from the height below, made when asked for. */
  normal(): Promise<Shape['normal']>;
  cavity(): Promise<Shape['cavity']>;
  occlusion(): Promise<Shape['occlusion']>;
  /** What the mask of the coat selects, once it is made; a value may be driven by it. */
  cover: SurfaceChannel;
  /** The strokes of one painted part of the mask, by its place from 0; none where it is not painted. */
  strokes(place: number): readonly PaintStroke[];
  /** Values 0..1 of one part of the mask, by its place from 0; 0 where there is no such part or it has no such values. */
  part(place: number, plane: string): Promise<SurfaceChannel>;
}
