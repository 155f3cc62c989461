import Button from '@mui/material/Button';
import { useQueryClient } from '@tanstack/react-query';
import { useSnackbar } from 'notistack';
import { ApiError, answerOf } from './client.ts';

const UNDO_MS = 12_000;

/** The words of whatever went wrong. */
export const wordsOf = (error: unknown): string =>
  error instanceof ApiError
    ? `${error.message} ${error.hint}`
    : error instanceof Error
      ? error.message
      : String(error);

/** Deletes something by its API address, and offers to undo it. */
export function useRemoval() {
  const queries = useQueryClient();
  const { enqueueSnackbar, closeSnackbar } = useSnackbar();
  return async (address: string, name: string) => {
    const again = () => queries.invalidateQueries();
    try {
      await answerOf(fetch(address, { method: 'DELETE' }));
      await again();
      enqueueSnackbar(`“${name}” was deleted.`, {
        autoHideDuration: UNDO_MS,
        action: (key) => (
          <Button
            variant="text"
            sx={{ color: 'inherit', fontWeight: 700 }}
            onClick={async () => {
              closeSnackbar(key);
              try {
                await answerOf(fetch(`${address}/restore`, { method: 'POST' }));
                await again();
              } catch (error) {
                enqueueSnackbar(wordsOf(error), { variant: 'error' });
              }
            }}
          >
            Undo
          </Button>
        ),
      });
    } catch (error) {
      enqueueSnackbar(wordsOf(error), { variant: 'error' });
    }
  };
}
