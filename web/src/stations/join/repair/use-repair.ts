import type { BrushRepair, Repair, RepairSpot } from '@zesty-tile/core';
import { create } from 'zustand';
import type { BrushPoint } from '../../../bench/floor/use-brush.ts';
import { useBench } from '../../../bench/state.ts';
import { engineNow } from '../../../bench/use-engine.ts';
import type { OfferedGraft } from '../../../engine/protocol.ts';

export type RepairTool = 'graft' | 'clone' | 'heal';

interface RepairState {
  tool: RepairTool | null;
  radius: number;
  softness: number;
  opacity: number;
  /** Whether the place it is taken from follows the brush, or each stroke begins at it again. */
  follows: boolean;
  /** Where it is taken from, in shares of the tile. */
  from: [number, number] | null;
  /** The next press sets where it is taken from. */
  choosing: boolean;
  /** The way to it from the brush, once a stroke has begun. */
  offset: [number, number] | null;
  spot: RepairSpot | null;
  /** A place to look at, that one came here to repair. */
  at: [number, number] | null;
  offers: OfferedGraft[] | null;
  failure: string | null;
  /** The repair pointed at in the list. */
  marked: number | null;
}

export const useRepair = create<RepairState>(() => ({
  tool: null,
  radius: 0.03,
  softness: 0,
  opacity: 1,
  follows: true,
  from: null,
  choosing: false,
  offset: null,
  spot: null,
  at: null,
  offers: null,
  failure: null,
  marked: null,
}));

/** Ways are whole pixels at every size from this one on, so that a clone stays as sharp as what it copies. */
const GRID = 512;
const onGrid = (value: number) => Math.round(value * GRID) / GRID;
const inTile = (value: number) => value - Math.floor(value);

const repairsNow = (): Repair[] => useBench.getState().recipe.stations.join.repairs;

/** Every repair is a step of its own. */
const setRepairs = (repairs: Repair[]) => useBench.getState().setDials('join', { repairs }, '');

export const removeRepair = (index: number): void => setRepairs(repairsNow().filter((_, k) => k !== index));
export const removeAllRepairs = (): void => setRepairs([]);

/** Takes a tool in use, or puts it away; the tile is shifted by half, so that its edges lie in the middle. */
export function takeTool(tool: RepairTool | null): void {
  // A source belongs to the tool that it was chosen for.
  const source = { from: null, offset: null, choosing: tool === 'clone' || tool === 'heal' };
  useRepair.setState({ tool, ...source, at: null, spot: null, offers: null, failure: null });
  if (tool) useBench.getState().set({ chosenView: null, halfShift: true });
}

/** The way a stroke that begins here takes its pixels. */
export function wayFrom([u, v]: [number, number]): [number, number] {
  const { from, offset, follows } = useRepair.getState();
  if (follows && offset) return offset;
  return from ? [onGrid(from[0] - u), onGrid(from[1] - v)] : [0, 0];
}

/** A stroke whose first point lies in the tile. */
export function strokeOf(points: BrushPoint[], offset: [number, number]): BrushRepair {
  const { tool, radius, softness, opacity } = useRepair.getState();
  const [left, top] = [Math.floor(points[0][0]), Math.floor(points[0][1])];
  const moved = points.map(([u, v, ...pressure]) => [u - left, v - top, ...pressure]) as BrushPoint[];
  return { kind: tool === 'heal' ? 'heal' : 'clone', points: moved, radius, softness, opacity, offset };
}

export function addStroke(points: BrushPoint[]): void {
  const offset = wayFrom([points[0][0], points[0][1]]);
  useRepair.setState({ offset });
  setRepairs([...repairsNow(), strokeOf(points, offset)]);
}

export function takeFrom([u, v]: [number, number]): void {
  useRepair.setState({ from: [inTile(u), inTile(v)], offset: null, choosing: false });
}

/** Asks for patches to lie over a place. */
export async function askGrafts([u, v]: [number, number]): Promise<void> {
  const engine = engineNow();
  if (!engine) return;
  const spot = { x: inTile(u), y: inTile(v), radius: useRepair.getState().radius };
  useRepair.setState({ spot, offers: null, failure: null });
  const { recipe, source } = useBench.getState();
  try {
    const offers = await engine.offerGrafts({ recipe, source }, spot);
    if (useRepair.getState().spot === spot) useRepair.setState({ offers });
  } catch (error) {
    if (useRepair.getState().spot !== spot) return;
    useRepair.setState({ failure: error instanceof Error ? error.message : String(error) });
  }
}

export function takeGraft({ graft }: OfferedGraft): void {
  useRepair.setState({ spot: null, offers: null });
  setRepairs([...repairsNow(), graft]);
}
