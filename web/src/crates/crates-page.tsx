import Typography from '@mui/material/Typography';
import { useEffect } from 'react';
import { Sheet } from '../head.tsx';
import { CrateCard } from '../stations/crate/crate-card.tsx';
import { CRATE_STATE_WORDS } from '../stations/crate/crate-words.ts';
import { useAllCrates } from './use-running.ts';

/** How many crates stand how, in words. */
function summary(states: readonly string[]): string {
  const counts = new Map<string, number>();
  for (const state of states) counts.set(state, (counts.get(state) ?? 0) + 1);
  return Object.entries(CRATE_STATE_WORDS)
    .flatMap(([state, words]) => (counts.has(state) ? [`${counts.get(state)} ${words.split(',')[0]}`] : []))
    .join(', ');
}

/** The crates of all tiles, newest first. */
export function CratesPage() {
  const { data, error } = useAllCrates();
  useEffect(() => {
    document.title = 'Crates, Zesty Tile';
  }, []);
  if (error) throw error;
  return (
    <Sheet title="Crates">
      <Typography color="text.secondary">
        Every crate keeps its number and its files; a newer one never takes an older one’s place.
      </Typography>
      {data && data.crates.length > 0 && (
        <Typography role="status" aria-label="How the crates stand">
          {summary(data.crates.map(({ state }) => state))}
        </Typography>
      )}
      {data?.crates.length === 0 && (
        <Typography>None yet. Choose a tile in the Yard and press “Crate it”.</Typography>
      )}
      {data?.crates.map((crate) => (
        <CrateCard key={crate.id} id={crate.id} tileId={crate.tileId} tileName={crate.tile.name} />
      ))}
    </Sheet>
  );
}
