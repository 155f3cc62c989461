import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useEffect } from 'react';
import { answerOf, api } from '../../api/client.ts';

export const ENDED = ['done', 'failed', 'stopped', 'interrupted'];

/** A crate as the server tells of it. */
export type FollowedCrate = Awaited<ReturnType<typeof crateOf>>['crate'];

const crateOf = (id: string) => answerOf(api.crates[':id'].$get({ param: { id } }));

/** The crates of a tile, newest first. */
export const useCrates = (tileId: string) =>
  useQuery({
    queryKey: ['crates', tileId],
    queryFn: () => answerOf(api.tiles[':id'].crates.$get({ param: { id: tileId } })),
  });

/** One crate with its files, followed while it is being made. */
export function useCrate(id: string, tileId: string) {
  const queries = useQueryClient();
  const query = useQuery({
    queryKey: ['crate', id],
    queryFn: () => crateOf(id),
  });
  const state = query.data?.crate.state;
  const going = state !== undefined && !ENDED.includes(state);
  useEffect(() => {
    if (!going) return;
    const events = new EventSource(`/api/crates/${id}/events`);
    events.addEventListener('crate', (event) => {
      const crate = JSON.parse(event.data);
      queries.setQueryData(['crate', id], (old: object | undefined) => ({ ...old, crate }));
      if (!ENDED.includes(crate.state)) return;
      events.close();
      void queries.invalidateQueries({ queryKey: ['crate', id] });
      void queries.invalidateQueries({ queryKey: ['crates', tileId] });
    });
    return () => events.close();
  }, [going, id, tileId, queries]);
  return query;
}
