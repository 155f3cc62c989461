import Box from '@mui/material/Box';
import Dialog from '@mui/material/Dialog';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import Typography from '@mui/material/Typography';
import { contentsOf, filesWithout, type ProfileFile, profileOf } from '@zesty-tile/core';
import { useState } from 'react';
import { Laid } from '../../bench/laid.tsx';
import { Picture } from '../../bench/picture.tsx';
import { useBench } from '../../bench/state.ts';
import { hasMap, SOME_MAPS } from '../../engine/has-map.ts';
import type { LookedFile } from '../../engine/protocol.ts';
import { FIGURES, GREY } from '../../theme.ts';
import { bytesWords } from './bytes-words.ts';
import { channelWords } from './channels.ts';
import { Swatch, Swatches } from './swatches.tsx';
import { useCrateLook } from './use-crate-look.ts';

const THUMB = 44;

/** One file, laid, and each of its channels by itself. */
function FileLook({ file, looked, onClose }: { file: ProfileFile; looked: LookedFile; onClose(): void }) {
  return (
    <Dialog open onClose={onClose} maxWidth="md" fullWidth aria-labelledby="file-look">
      <DialogTitle id="file-look">{looked.name}</DialogTitle>
      <DialogContent sx={{ display: 'flex', gap: 2 }}>
        <Box sx={{ flex: 2 }}>
          <Laid picture={looked.picture} />
        </Box>
        <Box sx={{ flex: 1, display: 'grid', gap: 1, alignContent: 'start' }}>
          <span style={{ color: GREY.soft }}>
            {looked.width} × {looked.height} px, {channelWords(file)}
          </span>
          {looked.channels.map((channel, k) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: a channel is known by its place
            <Box key={k} sx={{ display: 'flex', gap: 1, alignItems: 'center' }}>
              <Box sx={{ border: `1px solid ${GREY.line}` }}>
                <Picture picture={channel} edge={112} label={`Channel ${k + 1} of ${looked.name}`} />
              </Box>
              <span style={{ font: `12px ${FIGURES}` }}>
                {looked.channels.length > 1 && <Swatch channel={k} />}
                {contentsOf(file)[k]}
              </span>
            </Box>
          ))}
        </Box>
      </DialogContent>
    </Dialog>
  );
}

/** What is exported: each file with its picture, name and channels, and what all of it comes to. */
export function Contents({ tile, crate }: { tile: string; crate: number }) {
  const chosen = useBench((s) => s.recipe.stations.crate);
  const maps = useBench((s) => s.maps);
  const { look, problem, isBusy } = useCrateLook(chosen, tile, crate);
  const [open, setOpen] = useState<string | null>(null);
  const { document, files: all } = profileOf(chosen);
  const expected = filesWithout(
    { name: '', document, files: all },
    SOME_MAPS.filter((map) => !hasMap(maps, map)),
  );
  const lookedOf = (file: ProfileFile) => look?.files.find(({ ending }) => ending === file.ending);
  // What is one value all over may be left out of a document: what was looked at is what is written.
  const files = look && !isBusy ? expected.filter(lookedOf) : expected;
  const opened = files.find(({ ending }) => ending === open);
  const openLook = opened && lookedOf(opened);
  const documents = look?.names.filter((name) => !look.files.some((one) => one.name === name)) ?? [];
  return (
    <div aria-busy={isBusy}>
      <Box sx={{ display: 'flex', alignItems: 'baseline', gap: 1, mb: 0.5 }}>
        <Typography variant="h2">Files to export</Typography>
        <span role="status" style={{ color: GREY.soft }}>
          {isBusy ? 'updating …' : ''}
        </span>
      </Box>
      {files.map((file) => {
        const looked = lookedOf(file);
        return (
          <Box
            key={file.ending}
            data-file={file.ending}
            sx={{
              py: 0.5,
              borderBottom: `1px solid ${GREY.line}`,
              display: 'grid',
              gridTemplateColumns: `${THUMB}px minmax(0, 1fr)`,
              gap: 1,
            }}
          >
            <Box
              component="button"
              type="button"
              aria-label={`Look at ${file.ending}`}
              onClick={() => setOpen(file.ending)}
              sx={{
                p: 0,
                border: 0,
                width: THUMB,
                height: THUMB,
                cursor: 'zoom-in',
                bgcolor: GREY.walls,
                display: 'grid',
                placeItems: 'center',
              }}
            >
              {looked && (
                <Box sx={{ opacity: isBusy ? 0.45 : 1 }}>
                  <Picture picture={looked.picture} edge={THUMB} label={looked.name} />
                </Box>
              )}
            </Box>
            <div>
              <Box sx={{ display: 'flex', justifyContent: 'space-between', gap: 1 }}>
                <span>{channelWords(file)}</span>
                <span style={{ font: `12px ${FIGURES}`, color: GREY.soft, whiteSpace: 'nowrap' }}>
                  {file.format.toUpperCase()}, {file.bits} bit
                </span>
              </Box>
              {file.channels.length > 1 && <Swatches file={file} />}
              {looked && (
                <div
                  style={{ font: `11px ${FIGURES}`, color: GREY.soft, overflowWrap: 'anywhere' }}
                  data-testid={`name-${file.ending}`}
                >
                  {looked.name}
                </div>
              )}
            </div>
          </Box>
        );
      })}
      {documents.length > 0 && (
        <Box
          sx={{ font: `11px ${FIGURES}`, color: GREY.soft, pt: 0.5, overflowWrap: 'anywhere' }}
          data-testid="documents"
        >
          {documents.join(', ')}
        </Box>
      )}
      {look && (
        <Box sx={{ pt: 0.5 }} data-testid="crate-size">
          {look.names.length} {look.names.length === 1 ? 'file' : 'files'}, about {bytesWords(look.bytes)},
          estimated at {look.measuredAt} px
        </Box>
      )}
      {problem && <div role="alert">{problem}</div>}
      {opened && openLook && <FileLook file={opened} looked={openLook} onClose={() => setOpen(null)} />}
    </div>
  );
}
