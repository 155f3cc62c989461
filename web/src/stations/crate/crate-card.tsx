import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Menu from '@mui/material/Menu';
import MenuItem from '@mui/material/MenuItem';
import { useQueryClient } from '@tanstack/react-query';
import { useSnackbar } from 'notistack';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { answerOf, api } from '../../api/client.ts';
import { copyText } from '../../api/copy-text.ts';
import { useRemoval } from '../../api/use-undoable.tsx';
import { wordsOf } from '../../api/words-of.ts';
import { STATION_WORDS } from '../../bench/words.ts';
import { momentWords } from '../../moment.ts';
import { CARD, GREY } from '../../theme.ts';
import { SIGN, STATE_COLOUR } from '../../verdict.tsx';
import { CrateFiles } from './crate-files.tsx';
import { CrateProgress } from './crate-progress.tsx';
import { CRATE_STATE_WORDS } from './crate-words.ts';
import { downloadAll } from './download-all.ts';
import { openAgain } from './open-again.ts';
import { ENDED, type FollowedCrate, useCrate } from './use-crate.ts';

/** What the stations of a crate found, with the worst first. */
function Verdict({ verdict }: Pick<FollowedCrate, 'verdict'>) {
  if (!verdict) return null;
  const state = verdict.wrong.length > 0 ? 'wrong' : verdict.look.length > 0 ? 'look' : 'fine';
  const names = [...verdict.wrong, ...verdict.look].map((name) => STATION_WORDS[name]);
  return (
    <span style={{ color: STATE_COLOUR[state], fontWeight: 600 }}>
      {SIGN[state]} {names.length > 0 ? names.join(', ') : 'fine'}
    </span>
  );
}

interface CrateCardProps {
  id: string;
  tileId: string;
  /** Where crates of several tiles stand together. */
  tileName?: string;
  /** Whether no other of its tile is newer. */
  isNewest?: boolean;
}

/** One crate: how far it is, what is in it, the way to take it away. */
export function CrateCard({ id, tileId, tileName, isNewest = false }: CrateCardProps) {
  const { data } = useCrate(id, tileId);
  const queries = useQueryClient();
  const navigate = useNavigate();
  const remove = useRemoval();
  const { enqueueSnackbar } = useSnackbar();
  const [open, setOpen] = useState(false);
  const [menu, setMenu] = useState<HTMLElement | null>(null);
  if (!data) return null;
  const { crate, files, contents, folder } = data;
  const isGoing = !ENDED.includes(crate.state);
  const tried = (work: () => Promise<unknown>, said = '') => {
    setMenu(null);
    work()
      .then(() => queries.invalidateQueries())
      .then(() => said && enqueueSnackbar(said))
      .catch((error) => enqueueSnackbar(wordsOf(error), { variant: 'error' }));
  };
  const param = { id };
  const name = `${tileName ? `${tileName}, crate` : 'Crate'} ${crate.number}`;
  return (
    <Box data-crate={crate.number} sx={CARD}>
      <Box sx={{ display: 'flex', justifyContent: 'space-between', gap: 1 }}>
        <strong>
          {name}, {CRATE_STATE_WORDS[crate.state]}
        </strong>
        <span style={{ color: GREY.soft, whiteSpace: 'nowrap' }}>
          {momentWords(new Date(crate.createdAt))}
        </span>
      </Box>
      <Box sx={{ display: 'flex', justifyContent: 'space-between', gap: 1 }}>
        <span style={{ color: GREY.soft }}>
          {crate.profile}
          {crate.folder && ', to the watched folder'}
        </span>
        <Verdict verdict={crate.verdict} />
      </Box>
      {isGoing && (
        <CrateProgress
          crate={crate}
          onStop={() => tried(() => answerOf(api.crates[':id'].stop.$post({ param })))}
          onMove={(to) =>
            tried(() => answerOf(api.crates[':id'].move.$post({ param, json: { to } } as never)))
          }
        />
      )}
      {crate.message && <span>{crate.message}</span>}
      {!isGoing && (
        <Box sx={{ display: 'flex', gap: 1 }}>
          {crate.state === 'done' ? (
            <>
              <Button
                component="a"
                href={`/api/crates/${id}/archive.zip`}
                variant={isNewest ? 'contained' : 'outlined'}
                sx={{ flex: 1 }}
              >
                Download zip
              </Button>
              <Button aria-expanded={open} disabled={files.length === 0} onClick={() => setOpen(!open)}>
                {open ? 'Fold' : files.length > 0 ? `${files.length} files` : 'Files'}
              </Button>
            </>
          ) : (
            <Button onClick={() => tried(() => answerOf(api.crates[':id'].retry.$post({ param })))}>
              Run it again
            </Button>
          )}
          <Button
            aria-haspopup="menu"
            aria-label={`More for crate ${crate.number}`}
            onClick={(event) => setMenu(event.currentTarget)}
          >
            More
          </Button>
        </Box>
      )}
      <Menu open={menu !== null} anchorEl={menu} onClose={() => setMenu(null)}>
        {crate.state === 'done' && [
          <MenuItem
            key="all"
            onClick={() => {
              setMenu(null);
              downloadAll(
                id,
                files.map((file) => file.name),
              );
            }}
          >
            Download all files, one by one
          </MenuItem>,
          <MenuItem key="path" onClick={() => tried(() => copyText(folder), 'The path is copied.')}>
            Copy its path
          </MenuItem>,
          <MenuItem key="recipe" onClick={() => tried(() => openAgain(id, 'recipe', navigate))}>
            Open its recipe
          </MenuItem>,
          <MenuItem key="set" onClick={() => tried(() => openAgain(id, 'set', navigate))}>
            Open its maps as a tile
          </MenuItem>,
        ]}
        <MenuItem
          onClick={() => {
            setMenu(null);
            void remove(api.crates, id, name);
          }}
        >
          Delete
        </MenuItem>
      </Menu>
      {open && crate.state === 'done' && <CrateFiles id={id} files={files} contents={contents} />}
    </Box>
  );
}
