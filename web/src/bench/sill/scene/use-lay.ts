import { useQueryClient } from '@tanstack/react-query';
import { useSnackbar } from 'notistack';
import { wordsOf } from '../../../api/words-of.ts';
import { lay } from './laid.ts';
import type { Laying } from './laying.ts';
import type { ScenePart } from './parts.ts';

/** Lays tiles on parts of the terrace; says so where that could not be kept. */
export function useLay(projectId: string): (part: ScenePart, change: Partial<Laying>) => Promise<void> {
  const queries = useQueryClient();
  const { enqueueSnackbar } = useSnackbar();
  return async (part, change) => {
    try {
      await lay(projectId, part, change);
      await queries.invalidateQueries({ queryKey: ['projects'] });
    } catch (error) {
      enqueueSnackbar(wordsOf(error), { variant: 'error' });
    }
  };
}
