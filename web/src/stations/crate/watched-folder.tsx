import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { answerOf, api } from '../../api/client.ts';
import { wordsOf } from '../../api/words-of.ts';
import { Section } from '../../bench/dials/section.tsx';
import { GREY } from '../../theme.ts';

/** The folder that a renderer watches: named once, then filled again with one press. */
export function WatchedFolder({ tileId, onRefresh }: { tileId: string; onRefresh(): void }) {
  const queries = useQueryClient();
  const { data } = useQuery({
    queryKey: ['watched', tileId],
    queryFn: () => answerOf(api.tiles[':id'].$get({ param: { id: tileId } })),
  });
  const kept = data?.tile.watched ?? '';
  const [path, setPath] = useState(kept);
  const [problem, setProblem] = useState('');
  useEffect(() => setPath(kept), [kept]);
  const keep = async () => {
    if (path.trim() === kept) return;
    try {
      const json = { watched: path.trim() === '' ? null : path.trim() };
      await answerOf(api.tiles[':id'].$patch({ param: { id: tileId }, json } as never));
      setProblem('');
      await queries.invalidateQueries({ queryKey: ['watched', tileId] });
    } catch (error) {
      setProblem(wordsOf(error));
    }
  };
  return (
    <Section station="crate" id="folder-of-a-renderer" title="Watched folder" open={false}>
      <Box sx={{ display: 'grid', gap: 0.75 }}>
        <span style={{ color: GREY.soft }}>
          A folder that a renderer watches. Refresh makes a crate and puts its files there under the same
          names, all or none; the set before is kept under “former”.
        </span>
        <Box
          component="form"
          sx={{ display: 'flex', gap: 1, alignItems: 'start', mt: 0.5 }}
          onSubmit={(event) => {
            event.preventDefault();
            void keep();
          }}
        >
          <TextField
            label="Path of the folder"
            fullWidth
            value={path}
            error={problem !== ''}
            helperText={problem}
            onChange={(event) => setPath(event.target.value)}
            onBlur={() => void keep()}
          />
          <Button disabled={kept === ''} onClick={onRefresh} sx={{ py: 0.75 }}>
            Refresh
          </Button>
        </Box>
      </Box>
    </Section>
  );
}
