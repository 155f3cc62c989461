import { useQuery, useQueryClient } from '@tanstack/react-query';
import type { ChartLine } from '@zesty-tile/core';
import { answerOf, api } from '../api/client.ts';

/** A custom chart. */
export interface OwnChart {
  id: string;
  name: string;
  lines: ChartLine[];
}

interface Charts {
  charts: OwnChart[];
  /** Ids of lines that the project's tiles are compared with, most used first. */
  used: string[];
}

const KEY = 'charts';

/** One's own charts, and what a project has used. */
export const useCharts = (projectId = '') =>
  useQuery({
    queryKey: [KEY, projectId],
    queryFn: async () =>
      (await answerOf(api.charts.$get({ query: { project: projectId } } as never))) as unknown as Charts,
  });

/** Making and changing charts. */
export function useChartWork() {
  const queries = useQueryClient();
  const again = () => queries.invalidateQueries({ queryKey: [KEY] });
  return {
    async make(name: string, lines: readonly ChartLine[] = []): Promise<void> {
      await answerOf(api.charts.$post({ json: { name, lines } } as never));
      await again();
    },
    async change({ id, name, lines }: OwnChart): Promise<void> {
      await answerOf(api.charts[':id'].$put({ param: { id }, json: { name, lines } } as never));
      await again();
    },
  };
}
