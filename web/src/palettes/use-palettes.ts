import { useQuery, useQueryClient } from '@tanstack/react-query';
import { answerOf, api } from '../api/client.ts';

/** A named colour, sRGB as #rrggbb. */
export interface PaletteColour {
  name: string;
  hex: string;
}

export interface Palette {
  id: string;
  name: string;
  colours: PaletteColour[];
}

export const usePalettes = (projectId: string | undefined) =>
  useQuery({
    queryKey: ['palettes', projectId],
    queryFn: async () =>
      (await answerOf(api.palettes.$get({ query: { project: projectId } } as never))).palettes as Palette[],
    enabled: Boolean(projectId),
  });

/** Making and changing palettes of a project. */
export function usePaletteWork(projectId: string) {
  const queries = useQueryClient();
  const again = () => queries.invalidateQueries({ queryKey: ['palettes', projectId] });
  return {
    async make(name: string, colours: PaletteColour[] = []): Promise<Palette> {
      const { palette } = await answerOf(api.palettes.$post({ json: { projectId, name, colours } } as never));
      await again();
      return palette;
    },
    async change({ id, name, colours }: Palette): Promise<void> {
      queries.setQueryData<Palette[]>(['palettes', projectId], (all) =>
        all?.map((one) => (one.id === id ? { id, name, colours } : one)),
      );
      try {
        await answerOf(api.palettes[':id'].$put({ param: { id }, json: { name, colours } } as never));
      } finally {
        await again();
      }
    },
  };
}
