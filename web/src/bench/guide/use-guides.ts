import { useQuery, useQueryClient } from '@tanstack/react-query';
import { answerOf, api } from '../../api/client.ts';
import { storePicture } from '../../api/upload.ts';

/** The guide pictures pinned beside a tile. */
export const useGuides = (tileId: string) =>
  useQuery({
    queryKey: ['guides', tileId],
    queryFn: async () => (await answerOf(api.tiles[':id'].guides.$get({ param: { id: tileId } }))).guides,
  });

export function useGuideWork(tileId: string) {
  const queries = useQueryClient();
  const again = () => queries.invalidateQueries({ queryKey: ['guides', tileId] });
  return {
    async pin(files: File[]): Promise<void> {
      try {
        for (const file of files) {
          const { sha256, name } = await storePicture(file);
          await answerOf(
            api.tiles[':id'].guides.$post({
              param: { id: tileId },
              json: { name, sourceSha256: sha256 },
            } as never),
          );
        }
      } finally {
        await again();
      }
    },
    async unpin(id: string): Promise<void> {
      await answerOf(api.tiles[':id'].guides[':guide'].$delete({ param: { id: tileId, guide: id } }));
      await again();
    },
  };
}
