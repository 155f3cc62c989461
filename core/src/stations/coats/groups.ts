import type { Coat, CoatGroup } from './settings.ts';

/** The groups that a coat is in, the innermost first. One that is not there, or that would hold itself, is none. */
export function groupsOf({ group }: Pick<Coat, 'group'>, groups: readonly CoatGroup[]): CoatGroup[] {
  const found: CoatGroup[] = [];
  let id = group;
  while (id) {
    const next = groups.find((one) => one.id === id);
    if (!next || found.includes(next)) break;
    found.push(next);
    id = next.within;
  }
  return found;
}
