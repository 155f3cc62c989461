import Button from '@mui/material/Button';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import type { Recipe } from '@zesty-tile/core';
import { useSnackbar } from 'notistack';
import { useState } from 'react';
import { Choices } from '../bench/choices.tsx';
import { EditDialog } from '../edit-dialog.tsx';
import { ApplyRecipe } from './apply-recipe.tsx';
import { SaveRecipe } from './save-recipe.tsx';

/** The tile a recipe is taken from or put on. */
export interface RecipeTarget {
  tileName: string;
  recipe: Recipe;
  /** Puts a saved recipe on the tile, and says so. */
  take(recipe: Recipe, name: string): Promise<void>;
}

/** Recipes of one tile: save its own, or apply a saved one. */
export function RecipeDialog({ target, onClose }: { target: RecipeTarget; onClose(): void }) {
  const { enqueueSnackbar } = useSnackbar();
  const [way, setWay] = useState<'apply' | 'save'>('apply');
  return (
    <EditDialog onClose={onClose} aria-labelledby="recipe-title" fullWidth maxWidth="sm">
      <DialogTitle id="recipe-title">Recipe of {target.tileName}</DialogTitle>
      <DialogContent sx={{ display: 'grid', gap: 1 }}>
        <div>
          <Choices
            label="What to do"
            value={way}
            options={[
              { value: 'apply', words: 'Apply a saved one here' },
              { value: 'save', words: 'Save this one' },
            ]}
            onChange={(next: 'apply' | 'save') => setWay(next)}
          />
        </div>
        {way === 'save' ? (
          <SaveRecipe
            recipe={target.recipe}
            name={target.tileName}
            onSaved={() => {
              enqueueSnackbar('The recipe was saved; apply it from any tile.');
              onClose();
            }}
          />
        ) : (
          <ApplyRecipe
            recipe={target.recipe}
            take={async (recipe, name) => {
              await target.take(recipe, name);
              onClose();
            }}
          />
        )}
      </DialogContent>
      <DialogActions>
        <Button onClick={onClose}>Close</Button>
      </DialogActions>
    </EditDialog>
  );
}
