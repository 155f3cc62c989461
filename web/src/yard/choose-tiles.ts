import type { VerdictState } from '@zesty-tile/core';
import type { YardTile } from './queries.ts';
import { worstOf } from './worst.ts';

export const SORTS = ['made', 'changed', 'name', 'verdict', 'size'] as const;
export type Sort = (typeof SORTS)[number];

/** What is asked of the tiles of a project. */
export interface Wish {
  search: string;
  tags: string[];
  /** Only tiles whose worst verdict is this. */
  worst: VerdictState | null;
  sort: Sort;
}

export const EVERYTHING: Wish = { search: '', tags: [], worst: null, sort: 'made' };

const STATES: VerdictState[] = ['wrong', 'look', 'fine'];
const rank = (tile: YardTile) =>
  tile.look ? STATES.indexOf(worstOf(tile.look.verdicts).state) : STATES.length;

const ORDER: Record<Sort, (a: YardTile, b: YardTile) => number> = {
  made: (a, b) => b.createdAt.localeCompare(a.createdAt),
  changed: (a, b) => b.changedAt.localeCompare(a.changedAt),
  name: (a, b) => a.name.localeCompare(b.name, undefined, { numeric: true }),
  verdict: (a, b) => rank(a) - rank(b),
  size: (a, b) => b.size - a.size,
};

/** The tiles that answer a wish, in its order. Every word of the search must stand in the name or a tag. */
export function chooseTiles(tiles: readonly YardTile[], wish: Wish): YardTile[] {
  const words = wish.search.toLowerCase().split(/\s+/).filter(Boolean);
  return tiles
    .filter((tile) => {
      const text = [tile.name, ...tile.tags].join(' ').toLowerCase();
      if (!words.every((word) => text.includes(word))) return false;
      if (!wish.tags.every((tag) => tile.tags.includes(tag))) return false;
      return !wish.worst || (tile.look !== null && worstOf(tile.look.verdicts).state === wish.worst);
    })
    .sort(ORDER[wish.sort]);
}

/** The tags in use with their counts, most used first. */
export function tagsOf(tiles: readonly YardTile[]): [string, number][] {
  const counts = new Map<string, number>();
  for (const { tags } of tiles) for (const tag of tags) counts.set(tag, (counts.get(tag) ?? 0) + 1);
  return [...counts].sort((a, b) => b[1] - a[1] || a[0].localeCompare(b[0]));
}
