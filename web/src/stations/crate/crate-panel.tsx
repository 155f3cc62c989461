import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import LinearProgress from '@mui/material/LinearProgress';
import Typography from '@mui/material/Typography';
import { useQueryClient } from '@tanstack/react-query';
import { PROFILES, type StationName } from '@zesty-tile/core';
import { useSnackbar } from 'notistack';
import { useBench } from '../../bench/state.ts';
import { STATION_WORDS } from '../../bench/words.ts';
import { VIEW_WORDS } from '../../engine/views.ts';
import { FIGURES, GREY } from '../../theme.ts';
import { startCrate } from './start-crate.ts';
import { ENDED, useCrate, useCrates } from './use-crate.ts';

const size = (bytes: number) =>
  bytes >= 1e6 ? `${(bytes / 1e6).toFixed(1)} MB` : `${Math.ceil(bytes / 1e3)} kB`;

const STATE_WORDS: Record<string, string> = {
  waiting: 'waiting',
  working: 'being made',
  done: 'ready',
  failed: 'failed',
  stopped: 'stopped',
  interrupted: 'interrupted, run it again',
};

function Contents() {
  const profile = useBench((s) => s.recipe.stations.crate.profile);
  const hasAlpha = useBench((s) => s.maps?.opacity != null);
  const files = PROFILES[profile].filter((file) => file.maps[0] !== 'opacity' || hasAlpha);
  return (
    <div>
      <Typography variant="h2" sx={{ mb: 0.5 }}>
        What goes out
      </Typography>
      {files.map((file) => (
        <Box
          key={file.ending}
          sx={{
            display: 'flex',
            justifyContent: 'space-between',
            py: 0.3,
            borderBottom: `1px solid ${GREY.line}`,
          }}
        >
          <span>
            {file.maps.length === 1
              ? VIEW_WORDS[file.maps[0]]
              : file.maps.map((map, k) => `${VIEW_WORDS[map]} in ${['red', 'green', 'blue'][k]}`).join(', ')}
          </span>
          <span style={{ font: `12px ${FIGURES}`, color: GREY.soft, whiteSpace: 'nowrap' }}>
            PNG, {file.bits} bit
          </span>
        </Box>
      ))}
    </div>
  );
}

function CrateCard({ id, tileId, open }: { id: string; tileId: string; open: boolean }) {
  const { data } = useCrate(id, tileId);
  const queries = useQueryClient();
  if (!data) return null;
  const { crate, files } = data;
  const going = !ENDED.includes(crate.state);
  const stop = async () => {
    await fetch(`/api/crates/${id}/stop`, { method: 'POST' });
    void queries.invalidateQueries({ queryKey: ['crate', id] });
  };
  const at =
    crate.station === 'writing'
      ? 'writing files'
      : (STATION_WORDS[crate.station as StationName] ?? 'waiting');
  return (
    <Box
      data-crate={crate.number}
      sx={{
        bgcolor: GREY.card,
        border: `1px solid ${GREY.line}`,
        borderRadius: 1,
        p: 1.25,
        display: 'grid',
        gap: 0.75,
      }}
    >
      <Box sx={{ display: 'flex', justifyContent: 'space-between' }}>
        <strong>
          Crate {crate.number}, {STATE_WORDS[crate.state]}
        </strong>
        <span style={{ color: GREY.soft }}>
          {new Date(crate.createdAt).toLocaleTimeString([], { hour: '2-digit', minute: '2-digit' })}
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
            <Button onClick={stop}>Stop</Button>
          </Box>
        </>
      )}
      {crate.message && <span>{crate.message}</span>}
      {crate.state === 'done' && (
        <Button
          component="a"
          href={`/api/crates/${id}/archive.zip`}
          variant={open ? 'contained' : 'outlined'}
        >
          Download zip
        </Button>
      )}
      {open &&
        crate.state === 'done' &&
        files.map((file) => (
          <Box
            key={file.name}
            sx={{ display: 'flex', justifyContent: 'space-between', gap: 1, fontSize: 12 }}
          >
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
        ))}
    </Box>
  );
}

/** Crating: what goes out, the button, and the crates made so far. */
export function CratePanel() {
  const tileId = useBench((s) => s.tileId);
  const queries = useQueryClient();
  const { enqueueSnackbar } = useSnackbar();
  const { data } = useCrates(tileId);
  const start = async () => {
    try {
      await startCrate(tileId);
      await queries.invalidateQueries({ queryKey: ['crates', tileId] });
    } catch (error) {
      enqueueSnackbar(error instanceof Error ? error.message : String(error), { variant: 'error' });
    }
  };
  return (
    <>
      <Contents />
      <Button variant="contained" color="secondary" onClick={start}>
        Crate it
      </Button>
      {data?.crates.map((crate, k) => (
        <CrateCard key={crate.id} id={crate.id} tileId={tileId} open={k === 0} />
      ))}
    </>
  );
}
