import Typography from '@mui/material/Typography';
import { useEffect } from 'react';
import { Sheet } from '../head.tsx';
import { CrateCard } from '../stations/crate/crate-card.tsx';
import { useAllCrates } from './use-running.ts';

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
      {data?.crates.length === 0 && (
        <Typography>None yet. Choose a tile in the Yard and press “Crate it”.</Typography>
      )}
      {data?.crates.map((crate) => (
        <CrateCard
          key={crate.id}
          id={crate.id}
          tileId={crate.tileId}
          tileName={crate.tile.name}
          open={false}
        />
      ))}
    </Sheet>
  );
}
