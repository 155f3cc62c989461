import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import FormControlLabel from '@mui/material/FormControlLabel';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import { useQueryClient } from '@tanstack/react-query';
import { PROFILE_NAMES, PROFILES, type ProfileName, parseRecipe } from '@zesty-tile/core';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { answerOf, api } from '../api/client.ts';
import { wordsOf } from '../api/words-of.ts';
import { VerdictWords } from '../verdict.tsx';
import type { YardTile } from './queries.ts';
import { worstOf } from './worst.ts';

const EACH = 'each';

/** Gives a tile the profile, as a new version of it; one that has it stays as it is. */
async function giveProfile(id: string, profile: ProfileName): Promise<void> {
  const { revision } = await answerOf(api.tiles[':id'].$get({ param: { id } }));
  const recipe = parseRecipe(revision.recipe);
  const { crate } = recipe.stations;
  if (crate.profile === profile) return;
  const stations = { ...recipe.stations, crate: { ...crate, profile } };
  const json = { base: revision.number, recipe: { ...recipe, stations } };
  await answerOf<unknown>(api.tiles[':id'].revisions.$post({ param: { id }, json } as never));
}

/** Crates of several tiles at once: which, with what is wrong with any of them said before. */
export function CrateSeveral({ tiles, onClose }: { tiles: YardTile[]; onClose(): void }) {
  const navigate = useNavigate();
  const queries = useQueryClient();
  const [left, setLeft] = useState<ReadonlySet<string>>(new Set());
  const [problem, setProblem] = useState('');
  const [profile, setProfile] = useState<ProfileName | typeof EACH>(EACH);
  const wanted = tiles.filter(({ id }) => !left.has(id));
  const wrong = wanted.filter(({ look }) => look && worstOf(look.verdicts).state === 'wrong').length;
  const turn = (id: string) => {
    const next = new Set(left);
    if (!next.delete(id)) next.add(id);
    setLeft(next);
  };
  const start = async () => {
    try {
      if (profile !== EACH) for (const { id } of wanted) await giveProfile(id, profile);
      await answerOf(api.crates.$post({ json: { tiles: wanted.map(({ id }) => id) } } as never));
      await queries.invalidateQueries();
      navigate('/crates');
    } catch (error) {
      setProblem(wordsOf(error));
    }
  };
  return (
    <Dialog open onClose={onClose} maxWidth="sm" fullWidth aria-labelledby="crate-several">
      <DialogTitle id="crate-several">Crate several tiles</DialogTitle>
      <DialogContent>
        <p style={{ margin: '0 0 8px' }}>
          They are made one after the other and wait their turn under Crates. A profile chosen for all is kept
          in each tile, as a version that can be taken back.
        </p>
        <TextField
          select
          label="Profile"
          value={profile}
          onChange={(event) => setProfile(event.target.value as typeof profile)}
          sx={{ width: 320, mb: 1 }}
        >
          <MenuItem value={EACH}>Each tile’s own</MenuItem>
          {PROFILE_NAMES.map((name) => (
            <MenuItem key={name} value={name}>
              {PROFILES[name].name}
            </MenuItem>
          ))}
        </TextField>
        {tiles.map(({ id, name, look }) => {
          const worst = look ? worstOf(look.verdicts) : null;
          return (
            <Box key={id} sx={{ display: 'flex', alignItems: 'center', justifyContent: 'space-between' }}>
              <FormControlLabel
                control={<Checkbox size="small" checked={!left.has(id)} onChange={() => turn(id)} />}
                label={name}
                sx={{ '& .MuiFormControlLabel-label': { fontSize: 13 } }}
              />
              {worst ? <VerdictWords state={worst.state} words={worst.words} /> : 'not measured yet'}
            </Box>
          );
        })}
        {wrong > 0 && (
          <Box role="status" sx={{ mt: 1, fontWeight: 600 }}>
            {wrong === 1 ? 'One of them is' : `${wrong} of them are`} wrong somewhere; a crate is made all the
            same.
          </Box>
        )}
        {problem && <div role="alert">{problem}</div>}
      </DialogContent>
      <DialogActions>
        {left.size > 0 ? (
          <Button onClick={() => setLeft(new Set())}>Take all</Button>
        ) : (
          <Button onClick={() => setLeft(new Set(tiles.map(({ id }) => id)))}>Take none</Button>
        )}
        <Button onClick={onClose}>Cancel</Button>
        <Button variant="contained" disabled={wanted.length === 0} onClick={() => void start()}>
          {wanted.length === 1 ? 'Crate one tile' : `Crate ${wanted.length} tiles`}
        </Button>
      </DialogActions>
    </Dialog>
  );
}
