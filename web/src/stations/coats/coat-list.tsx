import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { type Coat, STATIONS } from '@zesty-tile/core';
import { pressable } from '../../bench/pressed.ts';
import { useBench } from '../../bench/state.ts';
import { FIGURES, GREY } from '../../theme.ts';
import { OFFERS } from './offers.ts';
import { OpenCoat } from './open-coat.tsx';
import { addCoat, changeCoat, moveCoat, useCoats } from './use-coats.ts';

const MOST = STATIONS.coats.settings.stack.most;

/** One coat in the list: its place, its name, and whether it counts. */
function CoatRow({ coat, place, isOpen }: { coat: Coat; place: number; isOpen: boolean }) {
  return (
    <Box sx={{ display: 'flex', gap: 0.5, alignItems: 'stretch' }}>
      <Button
        aria-expanded={isOpen}
        data-coat={coat.name}
        onClick={() => useCoats.setState({ open: isOpen ? null : coat.id })}
        onKeyDown={(event) => {
          if (!event.altKey || (event.key !== 'ArrowUp' && event.key !== 'ArrowDown')) return;
          event.preventDefault();
          moveCoat(coat.id, event.key === 'ArrowUp' ? 1 : -1);
        }}
        sx={{
          ...pressable(isOpen),
          flex: 1,
          minWidth: 0,
          justifyContent: 'flex-start',
          gap: 1,
          opacity: coat.visible ? 1 : 0.6,
        }}
      >
        <span style={{ font: `12px ${FIGURES}` }}>{place}</span>
        <span style={{ overflow: 'hidden', textOverflow: 'ellipsis', whiteSpace: 'nowrap' }}>
          {coat.name}
        </span>
      </Button>
      <Button
        aria-label={`Raise ${coat.name}`}
        sx={{ ...pressable(false), minWidth: 30 }}
        onClick={() => moveCoat(coat.id, 1)}
      >
        +
      </Button>
      <Button
        aria-label={`Lower ${coat.name}`}
        sx={{ ...pressable(false), minWidth: 30 }}
        onClick={() => moveCoat(coat.id, -1)}
      >
        −
      </Button>
      <Button
        aria-pressed={coat.visible}
        aria-label={`${coat.name} counts`}
        sx={{ ...pressable(coat.visible), minWidth: 44 }}
        onClick={() => changeCoat(coat.id, (now) => ({ ...now, visible: !now.visible }))}
      >
        {coat.visible ? 'On' : 'Off'}
      </Button>
    </Box>
  );
}

/** All coats, the top one first, the open one's settings below its row; and coats to begin with. */
export function CoatList() {
  const stack = useBench((s) => s.recipe.stations.coats.stack);
  const edgeMetres = useBench((s) => s.recipe.stations.square.edgeMetres);
  const open = useCoats((s) => s.open);
  return (
    <Box sx={{ display: 'grid', gap: 0.75 }}>
      {stack.length === 0 && (
        <Typography color="text.secondary">
          A coat is a layer over the tile: where it is, and what it puts into each map. Begin with one of
          these; everything about it can be changed.
        </Typography>
      )}
      {stack.length < MOST && (
        <Box role="group" aria-label="New coat" sx={{ display: 'flex', flexWrap: 'wrap', gap: 0.5 }}>
          {OFFERS.map(([words, make]) => (
            <Button
              key={words}
              sx={pressable(false)}
              onClick={() => addCoat(make({ edgeMm: 1000 * edgeMetres }))}
            >
              {words}
            </Button>
          ))}
        </Box>
      )}
      {stack.map((_coat, k) => {
        const at = stack.length - 1 - k;
        const coat = stack[at];
        return (
          <Box key={coat.id} sx={{ display: 'grid', gap: 0.75 }}>
            <CoatRow coat={coat} place={at + 1} isOpen={open === coat.id} />
            {open === coat.id && <OpenCoat coat={coat} />}
          </Box>
        );
      })}
      {stack.length > 1 && (
        <span style={{ color: GREY.soft }}>The top coat comes first; Alt and the arrow keys move one.</span>
      )}
    </Box>
  );
}
