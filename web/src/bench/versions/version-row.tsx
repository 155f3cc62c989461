import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { changesBetween } from '@zesty-tile/core';
import { useSnackbar } from 'notistack';
import { useEffect, useRef, useState } from 'react';
import { wordsOf } from '../../api/words-of.ts';
import { momentWords } from '../../moment.ts';
import { ChangeList } from '../../recipes/change-list.tsx';
import { GREY } from '../../theme.ts';
import { useBefore } from '../floor/before.ts';
import { useBench } from '../state.ts';
import { useVersionLook, type Version, versionRecipe } from './use-versions.ts';

const EDGE = 56;

/** True from the moment an element comes into sight. */
function useSeen() {
  const ref = useRef<HTMLDivElement>(null);
  const [seen, setSeen] = useState(false);
  useEffect(() => {
    if (!ref.current) return;
    const observer = new IntersectionObserver(([entry]) => entry.isIntersecting && setSeen(true));
    observer.observe(ref.current);
    return () => observer.disconnect();
  }, []);
  return { ref, seen };
}

/** One version: how it looked, what changed, and the ways back to it. */
export function VersionRow({ version, isNewest }: { version: Version; isNewest: boolean }) {
  const { number, createdAt, changes } = version;
  const tileId = useBench((s) => s.tileId);
  const recipe = useBench((s) => s.recipe);
  const compared = useBefore((s) => (s.compared?.number === number ? s.compared : null));
  const { ref, seen } = useSeen();
  const { data: look } = useVersionLook(tileId, number, seen);
  const { enqueueSnackbar } = useSnackbar();
  const tried = (work: Promise<unknown>) =>
    work.catch((error) => enqueueSnackbar(wordsOf(error), { variant: 'error' }));
  const compare = async () => {
    if (compared) useBefore.setState({ compared: null, divider: null, picture: null });
    else {
      const held = await versionRecipe(tileId, number);
      useBefore.setState({ compared: { number, recipe: held }, divider: 0.5, picture: null });
    }
  };
  const restore = async () => {
    const held = await versionRecipe(tileId, number);
    useBench.getState().replaceRecipe(held, `Version ${number} restored`);
    useBefore.setState({ compared: null, divider: null, picture: null });
    enqueueSnackbar(`Version ${number} restored. Undo returns to the previous state.`);
  };
  return (
    <Box
      ref={ref}
      data-version={number}
      sx={{
        display: 'grid',
        gap: 1,
        p: 1,
        bgcolor: GREY.card,
        border: `1px solid ${compared ? GREY.ink : GREY.line}`,
        borderRadius: 1,
      }}
    >
      <Box sx={{ display: 'flex', gap: 1.25 }}>
        <Box sx={{ width: EDGE, height: EDGE, flex: 'none', bgcolor: GREY.walls, borderRadius: 0.5 }}>
          {look && (
            <img
              src={`/api/thumbnails/${look.thumbnail}`}
              alt={`Version ${number}`}
              width={EDGE}
              height={EDGE}
              style={{ borderRadius: 2, objectFit: 'cover' }}
            />
          )}
        </Box>
        <Box sx={{ flex: 1, minWidth: 0 }}>
          <Box sx={{ display: 'flex', justifyContent: 'space-between', gap: 1 }}>
            <strong>
              Version {number}
              {isNewest ? ', now' : ''}
            </strong>
            <span style={{ color: GREY.soft, whiteSpace: 'nowrap' }}>{momentWords(new Date(createdAt))}</span>
          </Box>
          {changes.length === 0 && <span style={{ color: GREY.soft }}>{number === 1 ? 'Original' : ''}</span>}
          {changes.slice(0, 2).map((words) => (
            <Box key={words} sx={{ color: GREY.soft, fontSize: 12.5, overflowWrap: 'anywhere' }}>
              {words}
            </Box>
          ))}
          {changes.length > 2 && (
            <span style={{ color: GREY.soft, fontSize: 12.5 }}>and {changes.length - 2} more</span>
          )}
        </Box>
      </Box>
      {!isNewest && (
        <Box sx={{ display: 'flex', gap: 1 }}>
          <Button aria-pressed={compared !== null} onClick={() => tried(compare())}>
            {compared ? 'Stop comparing' : 'Compare'}
          </Button>
          <Button onClick={() => tried(restore())}>Restore</Button>
        </Box>
      )}
      {compared && <ChangeList changes={changesBetween(compared.recipe, recipe)} />}
    </Box>
  );
}
