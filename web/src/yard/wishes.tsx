import Box from '@mui/material/Box';
import Chip from '@mui/material/Chip';
import MenuItem from '@mui/material/MenuItem';
import Select from '@mui/material/Select';
import TextField from '@mui/material/TextField';
import type { VerdictState } from '@zesty-tile/core';
import { GREY } from '../theme.ts';
import { SIGN } from '../verdict.tsx';
import { SORTS, type Sort, type Wish } from './choose-tiles.ts';

const SORT_WORDS: Record<Sort, string> = {
  made: 'Newest first',
  changed: 'Last changed first',
  name: 'By name',
  verdict: 'Needs work first',
  size: 'Largest first',
};

const WORST_WORDS: Record<VerdictState, string> = {
  fine: `${SIGN.fine} fine`,
  look: `${SIGN.look} needs review`,
  wrong: `${SIGN.wrong} wrong`,
};

/** So many tags stand as chips; the search finds the rest. */
const CHIPS = 6;

interface WishesProps {
  wish: Wish;
  tags: [string, number][];
  onWish(wish: Wish): void;
}

/** Which tiles are shown, and in what order. */
export function Wishes({ wish, tags, onWish }: WishesProps) {
  const select = { bgcolor: GREY.card, fontSize: 13, '& .MuiSelect-select': { py: 0.6 } };
  const turn = (tag: string) =>
    onWish({
      ...wish,
      tags: wish.tags.includes(tag) ? wish.tags.filter((one) => one !== tag) : [...wish.tags, tag],
    });
  const shown = [
    ...tags.slice(0, CHIPS).map(([tag]) => tag),
    ...wish.tags.filter((tag) => !tags.slice(0, CHIPS).some(([one]) => one === tag)),
  ];
  return (
    <Box sx={{ display: 'flex', alignItems: 'center', gap: 1, flexWrap: 'wrap' }}>
      <Box role="group" aria-label="Tags in use" sx={{ display: 'flex', gap: 1 }}>
        {shown.map((tag) => (
          <Chip
            key={tag}
            label={tag}
            size="small"
            component="button"
            clickable
            aria-pressed={wish.tags.includes(tag)}
            onClick={() => turn(tag)}
            sx={{
              border: `1px solid ${GREY.line}`,
              bgcolor: wish.tags.includes(tag) ? GREY.ink : GREY.card,
              color: wish.tags.includes(tag) ? GREY.onInk : GREY.ink,
              '&:hover': { bgcolor: wish.tags.includes(tag) ? GREY.ink : GREY.sheet },
            }}
          />
        ))}
      </Box>
      <Select
        size="small"
        displayEmpty
        value={wish.worst ?? ''}
        inputProps={{ 'aria-label': 'Worst verdict' }}
        onChange={(event) => onWish({ ...wish, worst: (event.target.value || null) as VerdictState | null })}
        sx={select}
      >
        <MenuItem value="">Any verdict</MenuItem>
        {(Object.keys(WORST_WORDS) as VerdictState[]).map((state) => (
          <MenuItem key={state} value={state}>
            {WORST_WORDS[state]}
          </MenuItem>
        ))}
      </Select>
      <Select
        size="small"
        value={wish.sort}
        inputProps={{ 'aria-label': 'Order' }}
        onChange={(event) => onWish({ ...wish, sort: event.target.value as Sort })}
        sx={select}
      >
        {SORTS.map((sort) => (
          <MenuItem key={sort} value={sort}>
            {SORT_WORDS[sort]}
          </MenuItem>
        ))}
      </Select>
      <TextField
        type="search"
        placeholder="Find by name or tag"
        value={wish.search}
        onChange={(event) => onWish({ ...wish, search: event.target.value })}
        slotProps={{ htmlInput: { 'aria-label': 'Find by name or tag' } }}
        sx={{ width: 180, '& .MuiInputBase-root': { bgcolor: GREY.card }, '& input': { py: 0.75 } }}
      />
    </Box>
  );
}
