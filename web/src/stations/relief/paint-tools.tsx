import Button from '@mui/material/Button';
import { pressable } from '../../bench/pressed.ts';
import { useBench } from '../../bench/state.ts';

/** The tone that height is read from, seen on the Floor while paint is ignored; Before | after compares it with the tile. */
export function PaintTools() {
  const share = useBench((s) => s.recipe.stations.relief.paintShare);
  const isShown = useBench((s) => s.chosenView === 'tone');
  if (share === 0) return null;
  return (
    <Button
      aria-pressed={isShown}
      sx={{ ...pressable(isShown), justifySelf: 'start' }}
      onClick={() => useBench.getState().set({ chosenView: isShown ? null : 'tone' })}
    >
      Show tone without paint
    </Button>
  );
}
