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

/** A kind of thing in the typed client that can be deleted and restored by its id. */
interface Removable {
  ':id': {
    $delete(args: { param: { id: string } }): Promise<Answer>;
    restore: { $post(args: { param: { id: string } }): Promise<Answer> };
  };
}
type Answer = { ok: boolean; json(): Promise<unknown> };

/** Deletes something of a kind; it can be undone. */
export function useRemoval() {
  const undoable = useUndoable();
  return (kind: Removable, id: string, name: string) =>
    undoable(
      `“${name}” was deleted.`,
      () => answerOf(kind[':id'].$delete({ param: { id } })),
      () => answerOf(kind[':id'].restore.$post({ param: { id } })),
    );
}
