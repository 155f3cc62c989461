import Button from '@mui/material/Button';
import Menu from '@mui/material/Menu';
import MenuItem from '@mui/material/MenuItem';
import { type Coat, parseRecipe, withCoatsAdded } from '@zesty-tile/core';
import { useState } from 'react';
import { answerOf, api } from '../../api/client.ts';
import { useUndoable } from '../../api/use-undoable.tsx';
import { pressable } from '../../bench/pressed.ts';
import { useBench } from '../../bench/state.ts';
import { useTiles, type YardTile } from '../../yard/queries.ts';

/** Puts a copy of the coat on top of another tile of the project. */
export function CopyTo({ coat }: { coat: Coat }) {
  const projectId = useBench((s) => s.projectId);
  const tileId = useBench((s) => s.tileId);
  const { data: tiles } = useTiles(projectId);
  const undoable = useUndoable();
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  const others = (tiles ?? []).filter(({ id }) => id !== tileId);
  const put = async (id: string, base: number, recipe: object) => {
    const sent = api.tiles[':id'].revisions.$post({ param: { id }, json: { base, recipe } } as never);
    return (await answerOf<unknown>(sent)) as { revision: { number: number } };
  };
  const copy = ({ id, name }: YardTile) => {
    setAnchor(null);
    let undo = async () => {};
    return undoable(
      `“${coat.name}” was copied to ${name}.`,
      async () => {
        const { revision } = await answerOf(api.tiles[':id'].$get({ param: { id } }));
        const recipe = parseRecipe(revision.recipe);
        const { masks } = useBench.getState().recipe;
        const next = withCoatsAdded(recipe, { stack: [{ ...coat, group: '' }], groups: [] }, masks);
        const saved = await put(id, revision.number, next);
        undo = async () => {
          await put(id, saved.revision.number, recipe);
        };
      },
      () => undo(),
    );
  };
  return (
    <>
      <Button
        sx={pressable(false)}
        aria-haspopup="menu"
        disabled={others.length === 0}
        onClick={(event) => setAnchor(event.currentTarget)}
      >
        Copy to …
      </Button>
      <Menu anchorEl={anchor} open={anchor !== null} onClose={() => setAnchor(null)}>
        {others.map((tile) => (
          <MenuItem key={tile.id} onClick={() => void copy(tile)}>
            {tile.name}
          </MenuItem>
        ))}
      </Menu>
    </>
  );
}
