import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import FormControlLabel from '@mui/material/FormControlLabel';
import { useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { answerOf, api } from '../api/client.ts';
import { wordsOf } from '../api/words-of.ts';
import { VerdictWords } from '../verdict.tsx';
import type { YardTile } from './queries.ts';
import { worstOf } from './worst.ts';

/** Crates of several tiles at once: which, with what is wrong with any of them said before. */
export function CrateSeveral({ tiles, onClose }: { tiles: YardTile[]; onClose(): void }) {
  const navigate = useNavigate();
  const queries = useQueryClient();
  const [left, setLeft] = useState<ReadonlySet<string>>(new Set());
  const [problem, setProblem] = useState('');
  const wanted = tiles.filter(({ id }) => !left.has(id));
  const wrong = wanted.filter(({ look }) => look && worstOf(look.verdicts).state === 'wrong').length;
  const turn = (id: string) => {
    const next = new Set(left);
    if (!next.delete(id)) next.add(id);
    setLeft(next);
  };
  const start = async () => {
    try {
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
          Each goes out by its own recipe and profile, one after the other. They wait their turn under Crates.
        </p>
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
