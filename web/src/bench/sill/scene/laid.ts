import * as v from 'valibot';
import { useSill } from '../state.ts';
import { SCENE_PARTS, type ScenePart } from './parts.ts';

const keyOf = (projectId: string) => `terrace ${projectId}`;
const laidSchema = v.record(v.picklist(SCENE_PARTS), v.string());

/** Brings back what was laid on the terrace of a project. */
export function bringBack(projectId: string): void {
  let kept: unknown = {};
  try {
    kept = JSON.parse(localStorage.getItem(keyOf(projectId)) ?? '{}');
  } catch {
    // What cannot be read is as good as nothing.
  }
  const read = v.safeParse(laidSchema, kept);
  useSill.setState({ laid: read.success ? read.output : {} });
}

/** Lays a tile on a part, or the current tile where `tileId` is null; kept for the project. */
export function lay(projectId: string, part: ScenePart, tileId: string | null): void {
  const { [part]: _was, ...others } = useSill.getState().laid;
  const laid = tileId === null ? others : { ...others, [part]: tileId };
  useSill.setState({ laid });
  localStorage.setItem(keyOf(projectId), JSON.stringify(laid));
}
