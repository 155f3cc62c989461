import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import LinearProgress from '@mui/material/LinearProgress';
import { useQueryClient } from '@tanstack/react-query';
import type { StationName } from '@zesty-tile/core';
import { useSnackbar } from 'notistack';
import { useState } from 'react';
import { answerOf, api } from '../../api/client.ts';
import { wordsOf } from '../../api/words-of.ts';
import { STATION_WORDS } from '../../bench/words.ts';
import { momentWords } from '../../moment.ts';
import { CARD, FIGURES, GREY } from '../../theme.ts';
import { channelsOfFile } from './channels.ts';
import { CRATE_STATE_WORDS } from './crate-words.ts';
import { ENDED, useCrate } from './use-crate.ts';

const size = (bytes: number) =>
  bytes >= 1e6 ? `${(bytes / 1e6).toFixed(1)} MB` : `${Math.ceil(bytes / 1e3)} kB`;

interface CrateCardProps {
  id: string;
  tileId: string;
  /** Where crates of several tiles stand together. */
  tileName?: string;
  /** Whether its files are listed to begin with. */
  open: boolean;
}

/** One crate: how far it is, what is in it, the way to take it away. */
export function CrateCard({ id, tileId, tileName, open: openFirst }: CrateCardProps) {
  const { data } = useCrate(id, tileId);
  const queries = useQueryClient();
  const { enqueueSnackbar } = useSnackbar();
  const [open, setOpen] = useState(openFirst);
  if (!data) return null;
  const { crate, files } = data;
  const going = !ENDED.includes(crate.state);
  const tried = (work: Promise<unknown>) =>
    work
      .then(() => queries.invalidateQueries())
      .catch((error) => enqueueSnackbar(wordsOf(error), { variant: 'error' }));
  const at =
    crate.station === 'writing'
      ? 'writing files'
      : (STATION_WORDS[crate.station as StationName] ?? 'waiting');
  return (
    <Box data-crate={crate.number} sx={CARD}>
      <Box sx={{ display: 'flex', justifyContent: 'space-between', gap: 1 }}>
        <strong>
          {tileName ? `${tileName}, crate` : 'Crate'} {crate.number}, {CRATE_STATE_WORDS[crate.state]}
        </strong>
        <span style={{ color: GREY.soft, whiteSpace: 'nowrap' }}>
          {momentWords(new Date(crate.createdAt))}
        </span>
      </Box>
      {going && (
        <>
          <LinearProgress
            variant="determinate"
            value={100 * crate.progress}
            aria-label={`Crate ${crate.number}`}
          />
          <Box sx={{ display: 'flex', justifyContent: 'space-between', alignItems: 'center' }}>
            <span>
              {Math.round(100 * crate.progress)} %, {at}
            </span>
            <Button onClick={() => tried(answerOf(api.crates[':id'].stop.$post({ param: { id } })))}>
              Stop
            </Button>
          </Box>
        </>
      )}
      {crate.message && <span>{crate.message}</span>}
      {crate.state === 'done' && (
        <Box sx={{ display: 'flex', gap: 1 }}>
          <Button
            component="a"
            href={`/api/crates/${id}/archive.zip`}
            variant={openFirst ? 'contained' : 'outlined'}
            sx={{ flex: 1 }}
          >
            Download zip
          </Button>
          <Button aria-expanded={open} onClick={() => setOpen(!open)}>
            {open ? 'Fold' : `${files.length} files`}
          </Button>
        </Box>
      )}
      {(crate.state === 'interrupted' || crate.state === 'failed' || crate.state === 'stopped') && (
        <Button
          onClick={() => tried(answerOf(api.tiles[':id'].crates.$post({ param: { id: tileId } })))}
          sx={{ justifySelf: 'start' }}
        >
          Run it again
        </Button>
      )}
      {open &&
        crate.state === 'done' &&
        files.map((file) => (
          <Box key={file.name} sx={{ fontSize: 12 }}>
            <Box sx={{ display: 'flex', justifyContent: 'space-between', gap: 1 }}>
              <a
                href={`/api/crates/${id}/files/${encodeURIComponent(file.name)}`}
                style={{ color: GREY.ink, overflowWrap: 'anywhere' }}
              >
                {file.name}
              </a>
              <span style={{ font: `12px ${FIGURES}`, color: GREY.soft, whiteSpace: 'nowrap' }}>
                {size(file.bytes)}
              </span>
            </Box>
            <span style={{ color: GREY.soft }}>{channelsOfFile(file.name)}</span>
          </Box>
        ))}
    </Box>
  );
}
