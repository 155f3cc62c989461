import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import { saveOnTop, useSave } from './save.ts';
import { useBench } from './state.ts';
import { versionRecipe } from './versions/use-versions.ts';

/** Two windows changed one tile: both versions are kept, and one is gone on with. */
export function Conflict() {
  const state = useSave((s) => s.state);
  if (state.kind !== 'conflict') return null;
  const takeOther = async () => {
    const { tileId } = useBench.getState();
    const other = await versionRecipe(tileId, state.newest);
    // Mine becomes a version of its own first, so that neither is lost.
    await saveOnTop(state.newest);
    if (useSave.getState().state.kind !== 'saved') return;
    useBench.getState().replaceRecipe(other, `Version ${state.newest} taken`);
  };
  return (
    <Dialog open aria-labelledby="conflict-title">
      <DialogTitle id="conflict-title" sx={{ fontSize: 17, fontWeight: 700 }}>
        This tile was changed in another window
      </DialogTitle>
      <DialogContent>
        Version {state.newest} was saved there since you opened it here. Both stay in the list of versions,
        whichever you go on with.
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
