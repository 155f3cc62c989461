import * as v from 'valibot';
import { answerOf, api } from '../../../api/client.ts';
import { useSill } from '../state.ts';
import { type Laid, type Laying, laidSchema, UNLAID } from './laying.ts';
import type { ScenePart } from './parts.ts';

/** Where earlier versions kept it, in this browser alone. */
const keyOf = (projectId: string) => `terrace ${projectId}`;

function read(value: unknown): Laid | null {
  const found = v.safeParse(laidSchema, value);
  return found.success ? found.output : null;
}

function ofEarlierVersion(projectId: string): Laid | null {
  try {
    return read(JSON.parse(localStorage.getItem(keyOf(projectId)) ?? 'null'));
  } catch {
    // What cannot be read is as good as nothing.
    return null;
  }
}

const keep = (projectId: string, terrace: Laid) =>
  answerOf(api.projects[':id'].$patch({ param: { id: projectId }, json: { terrace } } as never));

/** Brings back what is on the terrace of a project. */
export function bringBack(projectId: string, kept: unknown): void {
  const known = read(kept);
  const earlier = known ? null : ofEarlierVersion(projectId);
  useSill.setState({ laid: known ?? earlier ?? {} });
  if (earlier) void keep(projectId, earlier).then(() => localStorage.removeItem(keyOf(projectId)));
}

/** Changes what is on a part; kept with the project. */
export async function lay(projectId: string, part: ScenePart, change: Partial<Laying>): Promise<void> {
  const before = useSill.getState().laid;
  const laid: Laid = { ...before, [part]: { ...UNLAID, ...before[part], ...change } };
  useSill.setState({ laid });
  try {
    await keep(projectId, laid);
  } catch (error) {
    useSill.setState({ laid: before });
    throw error;
  }
}
