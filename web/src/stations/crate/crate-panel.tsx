import Box from '@mui/material/Box';
import { useQuery } from '@tanstack/react-query';
import { safeName } from '@zesty-tile/core';
import { answerOf, api } from '../../api/client.ts';
import { useBench } from '../../bench/state.ts';
import { useCrating } from '../../crates/use-crating.tsx';
import { Contents } from './contents.tsx';
import { CrateCard } from './crate-card.tsx';
import { Names } from './names.tsx';
import { OwnProfile } from './own-profile.tsx';
import { useCrates } from './use-crate.ts';
import { WatchedFolder } from './watched-folder.tsx';

/** The newest crate, where it is seen as soon as it is begun. */
export function NewestCrate() {
  const tileId = useBench((s) => s.tileId);
  const newest = useCrates(tileId).data?.crates[0];
  return newest ? <CrateCard key={newest.id} id={newest.id} tileId={tileId} isNewest /> : null;
}

/** Crating: what is exported, and the crates made before the newest. */
export function CratePanel() {
  const tileId = useBench((s) => s.tileId);
  const start = useCrating();
  const { data } = useCrates(tileId);
  const { data: about } = useQuery({
    queryKey: ['watched', tileId],
    queryFn: () => answerOf(api.tiles[':id'].$get({ param: { id: tileId } })),
  });
  const tile = safeName(about?.tile.name ?? '') || 'tile';
  const next = (data?.crates[0]?.number ?? 0) + 1;
  return (
    <>
      <OwnProfile tile={tile} crate={next} />
      <Box>
        <Names />
        <WatchedFolder tileId={tileId} onRefresh={() => start(true)} />
      </Box>
      <Contents tile={tile} crate={next} />
      {data?.crates.slice(1).map((crate) => (
        <CrateCard key={crate.id} id={crate.id} tileId={tileId} />
      ))}
    </>
  );
}
