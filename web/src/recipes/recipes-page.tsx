import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useQueryClient } from '@tanstack/react-query';
import {
  isRootName,
  ROOT_SETTINGS,
  type SavedRecipe as Saved,
  SECTION_WORDS,
  type Section,
  type Setting,
  type SettingValue,
  sectionsOf,
  settingsOf,
  valueWords,
} from '@zesty-tile/core';
import { useEffect, useState } from 'react';
import { answerOf, api } from '../api/client.ts';
import { useRemoval } from '../api/use-undoable.tsx';
import { Sheet } from '../head.tsx';
import { NameDialog } from '../name-dialog.tsx';
import { CARD, FIGURES, GREY } from '../theme.ts';
import { sectionsIn } from './apply-recipe.tsx';
import { type SavedRecipe, useRecipes } from './use-recipes.ts';

interface Row {
  key: string;
  setting: Setting;
  value: SettingValue;
}

function rowsOf(saved: Saved, section: Section): Row[] {
  if (isRootName(section)) {
    return [{ key: section, setting: ROOT_SETTINGS[section], value: saved[section] as SettingValue }];
  }
  const values = Object.entries(saved.stations[section] as Record<string, SettingValue>);
  return values.map(([key, value]) => ({ key, setting: settingsOf(section)[key], value }));
}

function Settings({ recipe }: { recipe: Saved }) {
  return (
    <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', columnGap: 4, rowGap: 1 }}>
      {sectionsOf(recipe).map((section) => (
        <div key={section}>
          <strong>{SECTION_WORDS[section]}</strong>
          {rowsOf(recipe, section).map(({ key, setting, value }) => (
            <Box key={key} sx={{ display: 'flex', justifyContent: 'space-between', gap: 1 }}>
              <span style={{ color: GREY.soft }}>{setting.label}</span>
              <span style={{ font: `12px ${FIGURES}` }}>{valueWords(setting, value)}</span>
            </Box>
          ))}
        </div>
      ))}
    </Box>
  );
}

/** Every saved recipe: what is in it, rename, delete. */
export function RecipesPage() {
  const queries = useQueryClient();
  const remove = useRemoval();
  const { data } = useRecipes();
  const [shown, setShown] = useState('');
  const [renaming, setRenaming] = useState<SavedRecipe | null>(null);
  useEffect(() => {
    document.title = 'Recipes, Zesty Tile';
  }, []);
  return (
    <Sheet title="Recipes">
      <Typography color="text.secondary">
        Settings of stations, without a picture. Apply one from a tile: its crop and cut stay its own.
      </Typography>
      {data?.length === 0 && (
        <Typography>
          None is saved yet. Open a tile that came out well, press Recipe in its head, and save it there.
        </Typography>
      )}
      {data?.map((recipe) => (
        <Box key={recipe.id} data-recipe={recipe.name} sx={CARD}>
          <Box sx={{ display: 'flex', alignItems: 'center', gap: 1 }}>
            <Box sx={{ flex: 1, minWidth: 0 }}>
              <strong>{recipe.name}</strong>
              <Typography color="text.secondary">{sectionsIn(recipe.recipe)}</Typography>
            </Box>
            <Button
              aria-expanded={shown === recipe.id}
              onClick={() => setShown(shown === recipe.id ? '' : recipe.id)}
            >
              {shown === recipe.id ? 'Hide contents' : 'Show contents'}
            </Button>
            <Button onClick={() => setRenaming(recipe)}>Rename …</Button>
            <Button color="error" onClick={() => remove(api.recipes, recipe.id, recipe.name)}>
              Delete
            </Button>
          </Box>
          {shown === recipe.id && <Settings recipe={recipe.recipe} />}
        </Box>
      ))}
      {renaming && (
        <NameDialog
          title={`Rename ${renaming.name}`}
          label="Name of the recipe"
          name={renaming.name}
          action="Rename"
          onName={async (name) => {
            await answerOf(
              api.recipes[':id'].$patch({ param: { id: renaming.id }, json: { name } } as never),
            );
            await queries.invalidateQueries({ queryKey: ['recipes'] });
          }}
          onClose={() => setRenaming(null)}
        />
      )}
    </Sheet>
  );
}
