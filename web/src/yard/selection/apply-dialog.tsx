import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import MenuItem from '@mui/material/MenuItem';
import Select from '@mui/material/Select';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { useRecipes } from '../../recipes/use-recipes.ts';
import { GREY } from '../../theme.ts';
import type { YardTile } from '../queries.ts';
import { previewOf, useSeveral } from './use-several.ts';

const changeWords = (count: number) =>
  count === 0 ? 'has these settings already' : count === 1 ? '1 setting changes' : `${count} settings change`;

/** A saved recipe for several tiles, with what it changes in each shown before it does. */
export function ApplyToSeveral({ tiles, onClose }: { tiles: YardTile[]; onClose(): void }) {
  const { data: recipes } = useRecipes();
  const several = useSeveral(tiles);
  const [id, setId] = useState('');
  const saved = recipes?.find((one) => one.id === id);
  const { data: previewed, error } = useQuery({
    queryKey: ['recipe for several', id, ...tiles.map((tile) => `${tile.id} ${tile.revision}`)],
    queryFn: () => previewOf(saved!.recipe, tiles),
    enabled: saved !== undefined,
  });
  const changed = previewed?.filter(({ changes }) => changes > 0).length ?? 0;
  return (
    <Dialog open onClose={onClose} maxWidth="sm" fullWidth aria-labelledby="apply-several">
      <DialogTitle id="apply-several">Apply a recipe to {several.words}</DialogTitle>
      <DialogContent sx={{ display: 'grid', gap: 1.5 }}>
        {recipes?.length === 0 ? (
          <div>No recipe has been saved yet. Open a tile that came out well, and save its recipe there.</div>
        ) : (
          <Select
            size="small"
            displayEmpty
            value={id}
            inputProps={{ 'aria-label': 'Saved recipe' }}
            onChange={(event) => setId(event.target.value)}
            sx={{ bgcolor: GREY.card }}
          >
            <MenuItem value="" disabled>
              Choose a recipe …
            </MenuItem>
            {recipes?.map((one) => (
              <MenuItem key={one.id} value={one.id}>
                {one.name}
              </MenuItem>
            ))}
          </Select>
        )}
        {error && <div role="alert">{error.message}</div>}
        <Box role="list" aria-label="What changes" sx={{ maxHeight: 300, overflowY: 'auto' }}>
          {previewed?.map(({ tile, changes }) => (
            <Box
              key={tile.id}
              role="listitem"
              sx={{ display: 'flex', justifyContent: 'space-between', gap: 2, py: 0.25 }}
            >
              <span>{tile.name}</span>
              <span style={{ color: GREY.soft }}>{changeWords(changes)}</span>
            </Box>
          ))}
        </Box>
      </DialogContent>
      <DialogActions>
        <Button onClick={onClose}>Cancel</Button>
        <Button
          variant="contained"
          disabled={!previewed || !saved || changed === 0}
          onClick={() => {
            onClose();
            void several.apply(saved!.name, previewed!);
          }}
        >
          {changed === 1 ? 'Apply to 1 tile' : `Apply to ${changed} tiles`}
        </Button>
      </DialogActions>
    </Dialog>
  );
}
