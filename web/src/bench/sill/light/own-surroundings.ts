import { useQuery, useQueryClient } from '@tanstack/react-query';
import { answerOf, api } from '../../../api/client.ts';
import { aroundWorker, type PanoramaFormat } from './around.ts';

export interface OwnSurroundings {
  id: string;
  name: string;
  format: PanoramaFormat;
}

/** 360° pictures that were given, oldest first. */
export const useOwnSurroundings = (): OwnSurroundings[] =>
  useQuery({
    queryKey: ['surroundings'],
    queryFn: () => answerOf(api.surroundings.$get()),
  }).data?.surroundings ?? [];

/** Keeps a file's 360° picture, once it is known to be readable. @throws Error in plain words. */
export function useTakeSurroundings(): (file: File) => Promise<OwnSurroundings> {
  const queries = useQueryClient();
  return async (file) => {
    const format = /\.hdr$/i.test(file.name) ? 'hdr' : /\.exr$/i.test(file.name) ? 'exr' : 'picture';
    const bytes = await file.arrayBuffer();
    await aroundWorker().own(format, bytes);
    const name = file.name.replace(/\.\w+$/, '');
    const { surroundings } = await answerOf<{ surroundings: OwnSurroundings }>(
      api.surroundings.$post({ query: { name } } as never, { init: { body: bytes } }) as never,
    );
    await queries.invalidateQueries({ queryKey: ['surroundings'] });
    return surroundings;
  };
}

/** The file of surroundings that were given before. @throws Error in plain words. */
export async function ownSurroundings(id: string): Promise<{ format: PanoramaFormat; bytes: ArrayBuffer }> {
  const { surroundings } = await answerOf(api.surroundings.$get());
  const own = surroundings.find((one) => one.id === id);
  if (!own) throw new Error('These surroundings are no longer there.');
  const answer = await api.surroundings[':id'].file.$get({ param: { id } });
  if (!answer.ok) throw new Error('These surroundings cannot be fetched.');
  return { format: own.format, bytes: await answer.arrayBuffer() };
}
