import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import {
  applySaved,
  changesBetween,
  type Recipe,
  type SavedRecipe,
  SECTION_WORDS,
  sectionsOf,
} from '@zesty-tile/core';
import { useState } from 'react';
import { wordsOf } from '../api/words-of.ts';
import { GREY } from '../theme.ts';
import { ChangeList } from './change-list.tsx';
import { useRecipes } from './use-recipes.ts';

export const sectionsIn = (saved: SavedRecipe): string =>
  sectionsOf(saved)
    .map((name) => SECTION_WORDS[name])
    .join(', ');

/** Puts a saved recipe on a tile; what will change is shown before it does. */
export function ApplyRecipe({
  recipe,
  take,
}: {
  recipe: Recipe;
  take(recipe: Recipe, name: string): Promise<void>;
}) {
  const { data } = useRecipes();
  const [id, setId] = useState('');
  const [problem, setProblem] = useState('');
  const saved = data?.find((one) => one.id === id);
  const next = saved && applySaved(recipe, saved.recipe);
  const changes = next ? changesBetween(recipe, next) : [];
  if (data?.length === 0) {
    return (
      <Typography sx={{ pt: 1 }}>
        No recipe has been saved yet. Open a tile that came out well, and save its recipe here.
      </Typography>
    );
  }
  return (
    <Box sx={{ display: 'grid', gap: 1.5, pt: 1 }}>
      <TextField select label="Saved recipe" value={id} onChange={(event) => setId(event.target.value)}>
        {(data ?? []).map((one) => (
          <MenuItem key={one.id} value={one.id}>
            {one.name}
            <span style={{ color: GREY.soft, marginLeft: 8 }}>{sectionsIn(one.recipe)}</span>
          </MenuItem>
        ))}
      </TextField>
      {saved && changes.length === 0 && <Typography>This tile already has these settings.</Typography>}
      {changes.length > 0 && (
        <>
          <Typography>
            {changes.length} {changes.length === 1 ? 'setting changes' : 'settings change'}. Crop, turn, edge
            and everything else that belongs to this picture stay.
          </Typography>
          <Box
            sx={{ maxHeight: 260, overflowY: 'auto', pr: 1 }}
            tabIndex={0}
            role="group"
            aria-label="What changes"
          >
            <ChangeList changes={changes} />
          </Box>
        </>
      )}
      {problem && (
        <Alert severity="error" variant="outlined">
          {problem}
        </Alert>
      )}
      <Button
        variant="contained"
        disabled={changes.length === 0}
        onClick={() => take(next!, saved!.name).catch((error) => setProblem(wordsOf(error)))}
        sx={{ justifySelf: 'end' }}
      >
        Apply
      </Button>
    </Box>
  );
}
