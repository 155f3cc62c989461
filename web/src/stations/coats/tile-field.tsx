import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Menu from '@mui/material/Menu';
import MenuItem from '@mui/material/MenuItem';
import { type OtherTile, tileRepeats } from '@zesty-tile/core';
import { useState } from 'react';
import { answerOf, api } from '../../api/client.ts';
import { wordsOf } from '../../api/words-of.ts';
import { pressable } from '../../bench/pressed.ts';
import { useBench } from '../../bench/state.ts';
import { GREY } from '../../theme.ts';
import { useTiles } from '../../yard/queries.ts';

const millimetres = (metres: number) => `${Math.round(1000 * metres)} mm`;

/** Another tile of the project, as it is now; what it was when it was chosen stays until it is fetched again. */
export function TileField({ other, onOther }: { other: OtherTile | null; onOther(other: OtherTile): void }) {
  const { projectId, tileId } = useBench();
  const edgeMetres = useBench((s) => s.recipe.stations.square.edgeMetres);
  const { data: tiles } = useTiles(projectId);
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  const [state, setState] = useState('');
  const others = (tiles ?? []).filter(({ id }) => id !== tileId);
  const newest = others.find(({ id }) => id === other?.tileId);
  const take = async (id: string) => {
    setAnchor(null);
    setState('Its maps are being made …');
    try {
      const found = await answerOf(api.tiles[':id'].maps.$post({ param: { id } }));
      onOther((found as unknown as { other: OtherTile }).other);
      setState('');
    } catch (error) {
      setState(wordsOf(error));
    }
  };
  const repeats = other && tileRepeats(other, { edgeMetres });
  return (
    <Box sx={{ display: 'grid', gap: 0.25 }}>
      <Box sx={{ display: 'flex', alignItems: 'center', gap: 0.75 }}>
        <span style={{ color: GREY.soft, flex: 1, minWidth: 0 }}>{other?.name ?? 'No tile yet'}</span>
        {newest && other && newest.revision !== other.revision && (
          <Button sx={pressable(false)} onClick={() => void take(other.tileId)}>
            Fetch anew
          </Button>
        )}
        <Button
          sx={pressable(false)}
          aria-haspopup="menu"
          disabled={others.length === 0}
          onClick={(event) => setAnchor(event.currentTarget)}
        >
          {other ? 'Another' : 'Choose …'}
        </Button>
      </Box>
      {other && repeats && (
        <span style={{ color: GREY.soft }}>
          {repeats} × along the edge: {millimetres(edgeMetres / repeats)} each, its own size is{' '}
          {millimetres(other.edgeMetres)}.
        </span>
      )}
      {state && <span role="status">{state}</span>}
      <Menu anchorEl={anchor} open={anchor !== null} onClose={() => setAnchor(null)}>
        {others.map(({ id, name }) => (
          <MenuItem key={id} onClick={() => void take(id)}>
            {name}
          </MenuItem>
        ))}
      </Menu>
    </Box>
  );
}
