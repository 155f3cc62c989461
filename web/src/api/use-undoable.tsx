import Button from '@mui/material/Button';
import { useQueryClient } from '@tanstack/react-query';
import { useSnackbar } from 'notistack';
import { answerOf } from './client.ts';
import { wordsOf } from './words-of.ts';

const UNDO_MS = 12_000;

/** Does something to what the server holds, says so, and offers to undo it. */
export function useUndoable() {
  const queries = useQueryClient();
  const { enqueueSnackbar, closeSnackbar } = useSnackbar();
  const tried = async (work: () => Promise<unknown>): Promise<boolean> => {
    try {
      await work();
      return true;
    } catch (error) {
      enqueueSnackbar(wordsOf(error), { variant: 'error' });
      return false;
    }
  };
  const again = () => queries.invalidateQueries();
  return async (said: string, work: () => Promise<unknown>, undo: () => Promise<unknown>) => {
    if (!(await tried(work))) return;
    // Said before the lists are fetched again: nothing may be seen to change with only an older thing's Undo beside it.
    enqueueSnackbar(said, {
      autoHideDuration: UNDO_MS,
      action: (key) => (
        <Button
          variant="text"
          sx={{ color: 'inherit', fontWeight: 700 }}
          onClick={async () => {
            closeSnackbar(key);
            if (await tried(undo)) await again();
          }}
        >
          Undo
        </Button>
      ),
    });
    await again();
  };
}

/** Deletes something by its API address; it can be undone. */
export function useRemoval() {
  const undoable = useUndoable();
  return (address: string, name: string) =>
    undoable(
      `“${name}” was deleted.`,
      () => answerOf(fetch(address, { method: 'DELETE' })),
      () => answerOf(fetch(`${address}/restore`, { method: 'POST' })),
    );
}
