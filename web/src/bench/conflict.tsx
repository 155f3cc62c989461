import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import { parseRecipe } from '@zesty-tile/core';
import { answerOf, api } from '../api/client.ts';
import { dropDraft } from './draft.ts';
import { saveOnTop, startSaving, useSave } from './save.ts';
import { useBench } from './state.ts';

/** Two windows changed one tile: both versions are kept, and one is gone on with. */
export function Conflict() {
  const state = useSave((s) => s.state);
  if (state.kind !== 'conflict') return null;
  const takeOther = async () => {
    const { tileId } = useBench.getState();
    const { revision } = await answerOf(api.tiles[':id'].$get({ param: { id: tileId } }));
    const recipe = parseRecipe(revision.recipe);
    dropDraft(tileId);
    startSaving(recipe);
    useBench.setState({ base: revision.number });
    useBench.getState().replaceRecipe(recipe, `Version ${revision.number} taken`);
  };
  return (
    <Dialog open aria-labelledby="conflict-title">
      <DialogTitle id="conflict-title" sx={{ fontSize: 17, fontWeight: 700 }}>
        This tile was changed in another window
      </DialogTitle>
      <DialogContent>
        Version {state.newest} was saved there since you opened it here. Yours can go on top of it as the
        newest version (the other stays in the list of versions), or you take the other one; yours is then one
        undo away.
      </DialogContent>
      <DialogActions>
        <Button onClick={takeOther}>Take the other version</Button>
        <Button variant="contained" onClick={() => saveOnTop(state.newest)}>
          Save mine on top
        </Button>
      </DialogActions>
    </Dialog>
  );
}
