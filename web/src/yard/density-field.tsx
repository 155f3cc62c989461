import TextField from '@mui/material/TextField';
import { useQueryClient } from '@tanstack/react-query';
import { useSnackbar } from 'notistack';
import { useEffect, useState } from 'react';
import { answerOf, api } from '../api/client.ts';
import { wordsOf } from '../api/words-of.ts';
import { FIGURES, GREY } from '../theme.ts';
import { useProjects } from './queries.ts';

/** How many pixels a metre the game wants of this project's tiles; Proof holds them against it. */
export function DensityField({ projectId }: { projectId: string }) {
  const queries = useQueryClient();
  const { enqueueSnackbar } = useSnackbar();
  const { data } = useProjects();
  const density = data?.projects.find(({ id }) => id === projectId)?.density ?? null;
  const kept = density === null ? '' : String(density);
  const [text, setText] = useState(kept);
  useEffect(() => setText(kept), [kept]);
  const take = async () => {
    const next = text.trim() === '' ? null : Number(text.replace(',', '.'));
    if (next === density) return;
    try {
      if (next !== null && !Number.isFinite(next)) throw new Error('A texel density is a number.');
      const json = { density: next };
      await answerOf(api.projects[':id'].$patch({ param: { id: projectId }, json } as never));
      await queries.invalidateQueries({ queryKey: ['projects'] });
    } catch (error) {
      enqueueSnackbar(wordsOf(error), { variant: 'error' });
      setText(kept);
    }
  };
  return (
    <TextField
      value={text}
      placeholder="none wanted"
      helperText="Target texel density"
      onChange={(event) => setText(event.target.value)}
      onBlur={() => void take()}
      onKeyDown={(event) => event.key === 'Enter' && (event.target as HTMLElement).blur()}
      slotProps={{
        htmlInput: { 'aria-label': 'Texel density of the project, pixels per metre', inputMode: 'decimal' },
        input: { endAdornment: 'px/m', sx: { font: `13px ${FIGURES}`, bgcolor: GREY.card } },
      }}
    />
  );
}
