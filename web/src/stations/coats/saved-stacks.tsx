import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useQueryClient } from '@tanstack/react-query';
import { type Coat, type CoatGroup, sectionsOf, sectionsToSave } from '@zesty-tile/core';
import { useSnackbar } from 'notistack';
import { useState } from 'react';
import { answerOf, api } from '../../api/client.ts';
import { wordsOf } from '../../api/words-of.ts';
import { pressable } from '../../bench/pressed.ts';
import { useBench } from '../../bench/state.ts';
import { NameDialog } from '../../name-dialog.tsx';
import { type SavedRecipe, useRecipes } from '../../recipes/use-recipes.ts';
import { GREY } from '../../theme.ts';
import { addStack } from './use-coats.ts';

/** Saved recipes that hold coats and nothing else. */
const onlyCoats = ({ recipe }: SavedRecipe): boolean => {
  const sections = sectionsOf(recipe);
  return sections.length === 1 && sections[0] === 'coats';
};

/** Saves all coats under a name for other tiles, and puts saved ones on top of those there are. */
export function SavedStacks() {
  const { data } = useRecipes();
  const queries = useQueryClient();
  const { enqueueSnackbar } = useSnackbar();
  const isEmpty = useBench((s) => s.recipe.stations.coats.stack.length === 0);
  const [naming, setNaming] = useState(false);
  const saved = (data ?? []).filter(onlyCoats);
  if (isEmpty && saved.length === 0) return null;
  return (
    <Box
      role="group"
      aria-label="Saved coats"
      sx={{ display: 'flex', flexWrap: 'wrap', gap: 0.5, alignItems: 'center' }}
    >
      <span style={{ color: GREY.soft }}>Saved coats</span>
      {saved.map(({ id, name, recipe }) => (
        <Button
          key={id}
          aria-label={`Add ${name}`}
          sx={pressable(false)}
          onClick={() => {
            const { stack, groups = [] } = recipe.stations.coats as unknown as {
              stack: Coat[];
              groups?: CoatGroup[];
            };
            addStack(stack, groups);
          }}
        >
          {name}
        </Button>
      ))}
      {!isEmpty && (
        <Button sx={pressable(false)} onClick={() => setNaming(true)}>
          Save these …
        </Button>
      )}
      {naming && (
        <NameDialog
          title="Save the coats for other tiles"
          label="Name of the coats"
          name="Coats"
          action="Save"
          onName={async (name) => {
            const { recipe } = useBench.getState();
            try {
              const json = { name, recipe: sectionsToSave(recipe, ['coats']) };
              await answerOf(api.recipes.$post({ json } as never));
              await queries.invalidateQueries({ queryKey: ['recipes'] });
              enqueueSnackbar(
                `“${name}” was saved. Add it here on any tile, or apply it to several in the Yard.`,
              );
            } catch (error) {
              enqueueSnackbar(wordsOf(error), { variant: 'error' });
            }
          }}
          onClose={() => setNaming(false)}
        />
      )}
    </Box>
  );
}
