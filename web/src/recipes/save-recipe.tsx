import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useQueryClient } from '@tanstack/react-query';
import { type Recipe, SAVABLE, SECTION_WORDS, type Section, sectionsToSave } from '@zesty-tile/core';
import { type FormEvent, useState } from 'react';
import { answerOf, api } from '../api/client.ts';
import { wordsOf } from '../api/words-of.ts';

/** Saves whole or chosen stations of a recipe under a name. */
export function SaveRecipe({
  recipe,
  name: tileName,
  onSaved,
}: {
  recipe: Recipe;
  name: string;
  onSaved(): void;
}) {
  const queries = useQueryClient();
  const [name, setName] = useState(tileName);
  const [chosen, setChosen] = useState<readonly Section[]>(SAVABLE);
  const [problem, setProblem] = useState('');
  const save = async (event: FormEvent) => {
    event.preventDefault();
    try {
      await answerOf(api.recipes.$post({ json: { name, recipe: sectionsToSave(recipe, chosen) } } as never));
      await queries.invalidateQueries({ queryKey: ['recipes'] });
      onSaved();
    } catch (error) {
      setProblem(wordsOf(error));
    }
  };
  return (
    <Box component="form" onSubmit={save} sx={{ display: 'grid', gap: 1.5, pt: 1 }}>
      <TextField label="Name of the recipe" value={name} onChange={(event) => setName(event.target.value)} />
      <fieldset style={{ border: 0, padding: 0, margin: 0 }}>
        <legend style={{ fontWeight: 700 }}>Included</legend>
        <Box sx={{ display: 'grid', gridTemplateColumns: 'repeat(4, 1fr)' }}>
          {SAVABLE.map((section) => (
            <FormControlLabel
              key={section}
              label={SECTION_WORDS[section]}
              slotProps={{ typography: { variant: 'body1' } }}
              control={
                <Checkbox
                  size="small"
                  checked={chosen.includes(section)}
                  onChange={(event) =>
                    setChosen(
                      event.target.checked ? [...chosen, section] : chosen.filter((one) => one !== section),
                    )
                  }
                />
              }
            />
          ))}
        </Box>
      </fieldset>
      <Typography color="text.secondary">
        What belongs to this picture (crop, turn, edge, cut) is not saved with it.
      </Typography>
      {problem && (
        <Alert severity="error" variant="outlined">
          {problem}
        </Alert>
      )}
      <Button
        type="submit"
        variant="contained"
        disabled={chosen.length === 0 || name.trim() === ''}
        sx={{ justifySelf: 'end' }}
      >
        Save recipe
      </Button>
    </Box>
  );
}
